// @ts-check
import { spawnSync } from 'node:child_process'
import { existsSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { Plain } from '../say.mjs'

/**
 * Three etcd members, which agree on which database may be written to: two of three must live. They ask for a
 * password (etcd's own documentation, “Role-based access control”).
 */

/** @typedef {import('./ground.mjs').Ground} Ground */

/** @param {Ground} ground @returns {import('./programs.mjs').Program[]} */
export function etcdPrograms({ folder, ports, user }) {
  const peers = ports.etcd.map((_, i) => `etcd${i + 1}=http://127.0.0.1:${ports.etcdPeer[i]}`).join(',')
  return ports.etcd.map((port, i) => {
    const name = `etcd${i + 1}`, client = `http://127.0.0.1:${port}`, peer = `http://127.0.0.1:${ports.etcdPeer[i]}`
    return {
      name,
      command: 'etcd',
      args: [
        '--name', name, '--data-dir', join(folder, name), '--listen-client-urls', client, '--advertise-client-urls', client,
        '--listen-peer-urls', peer, '--initial-advertise-peer-urls', peer, '--initial-cluster', peers,
        '--initial-cluster-token', 'nine-ripples', '--initial-cluster-state', 'new', '--logger', 'zap',
        // A machine with little time of its own must not lose its leader over it.
        '--heartbeat-interval', '300', '--election-timeout', '3000',
        '--auto-compaction-mode', 'periodic', '--auto-compaction-retention', '1h',
      ],
      log: join(folder, `${name}.log`),
      user,
      env: { PATH: process.env.PATH, ETCD_UNSUPPORTED_ARCH: process.env.ETCD_UNSUPPORTED_ARCH },
    }
  })
}

/** @param {Ground} ground @param {string[]} args @param {string} [input] */
function etcdctl({ ports, secrets, folder }, args, input) {
  const known = existsSync(join(folder, 'etcd-locked'))
  return spawnSync('etcdctl', args, {
    encoding: 'utf8', input, timeout: 10_000,
    env: {
      PATH: process.env.PATH,
      ETCDCTL_API: '3',
      ETCDCTL_ENDPOINTS: ports.etcd.map(p => `127.0.0.1:${p}`).join(','),
      // In the environment, which others on this machine cannot read, and not among the arguments, which they can.
      ...known && { ETCDCTL_USER: `root:${secrets.etcd}` },
    },
  })
}

/** Waits until they agree with each other, and locks them the first time. @param {Ground} ground */
export async function lockEtcd(ground) {
  const lock = join(ground.folder, 'etcd-locked'), deadline = Date.now() + 120_000
  while (etcdctl(ground, ['endpoint', 'health']).status !== 0) {
    if (Date.now() > deadline) throw new Plain(`etcd did not come to an agreement; see ${ground.folder}/etcd1.log.`)
    await new Promise(done => setTimeout(done, 300))
  }
  if (existsSync(lock)) return
  for (const [args, input] of /** @type {[string[], string?][]} */ ([
    [['user', 'add', 'root', '--interactive=false'], `${ground.secrets.etcd}\n`],
    [['user', 'grant-role', 'root', 'root']],
    [['auth', 'enable']],
  ])) {
    const done = etcdctl(ground, args, input)
    if (done.status !== 0) throw new Plain(`etcd could not be given a password:\n${done.stderr.trim()}`)
  }
  writeFileSync(lock, '')
}
