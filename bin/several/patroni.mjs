// @ts-check
import { existsSync, mkdirSync, readFileSync, writeFileSync, chownSync, chmodSync } from 'node:fs'
import { join } from 'node:path'
import { postgresPrograms } from '../setup.mjs'
import { Plain } from '../say.mjs'

/**
 * Three databases under Patroni: one is written to, the others follow it, one of them so closely that nothing is
 * acknowledged before it has it on disk (strict synchronous mode). Patroni's own documentation, “Replication modes”.
 */

/** @typedef {import('./ground.mjs').Ground} Ground */
/** @typedef {{ name: string, role: 'primary' | 'standby' | 'away', port: number, state: string }} Node */

/** From how long without a word on somebody else may be written to, s. Patroni takes no less. */
const TTL_S = 20

/** What Patroni reads; as JSON, which YAML contains. @param {Ground} ground @param {number} i */
function settings({ folder, ports, secrets }, i) {
  const name = `db${i + 1}`, home = join(folder, name), rest = `127.0.0.1:${ports.rest[i]}`
  const door = `127.0.0.1:${ports.postgres[i]}`
  return {
    scope: 'nine-ripples',
    name,
    restapi: { listen: rest, connect_address: rest, authentication: { username: 'patroni', password: secrets.rest } },
    etcd3: { hosts: ports.etcd.map(p => `127.0.0.1:${p}`), username: 'root', password: secrets.etcd },
    bootstrap: {
      dcs: {
        ttl: TTL_S,
        loop_wait: 5,
        retry_timeout: 5,
        maximum_lag_on_failover: 1_048_576,
        // A database that ended is not waited for where another can go on.
        primary_start_timeout: 0,
        synchronous_mode: true,
        synchronous_mode_strict: true,
        // Without etcd it goes on as long as all of them hear each other.
        failsafe_mode: true,
        postgresql: {
          use_pg_rewind: true,
          use_slots: true,
          parameters: {
            max_connections: 100,
            max_wal_senders: 8,
            wal_log_hints: 'on',
            hot_standby: 'on',
            // Acknowledged only once the standby in step would also show it: what is read there is never older.
            synchronous_commit: 'remote_apply',
          },
        },
      },
      initdb: [{ encoding: 'UTF8' }, { locale: 'C.UTF-8' }, 'data-checksums'],
    },
    postgresql: {
      listen: door,
      connect_address: door,
      data_dir: join(home, 'data'),
      bin_dir: postgresPrograms(),
      pgpass: join(home, 'pgpass'),
      authentication: {
        superuser: { username: 'keeper', password: secrets.keeper },
        replication: { username: 'standby', password: secrets.standby },
        rewind: { username: 'rewinder', password: secrets.rewinder },
      },
      parameters: { unix_socket_directories: home, password_encryption: 'scram-sha-256' },
      pg_hba: ['host all all 127.0.0.1/32 scram-sha-256', 'host replication standby 127.0.0.1/32 scram-sha-256'],
    },
  }
}

/** Ends a database whose keeper was killed, as both go when a machine does. @param {string} data */
function endPostgres(data) {
  const file = join(data, 'postmaster.pid')
  if (!existsSync(file)) return
  const pid = Number(readFileSync(file, 'utf8').split('\n')[0]), command = `/proc/${pid}/cmdline`
  if (pid > 0 && existsSync(command) && readFileSync(command, 'utf8').includes(data)) process.kill(pid, 'SIGKILL')
}

/** @param {Ground} ground @returns {import('./programs.mjs').Program[]} */
export function patroniPrograms(ground) {
  const { folder, ports, user } = ground
  return ports.postgres.map((_, i) => {
    const name = `db${i + 1}`, home = join(folder, name), file = join(home, 'patroni.json')
    mkdirSync(home, { recursive: true })
    chmodSync(home, 0o700)
    writeFileSync(file, JSON.stringify(settings(ground, i), null, 2), { mode: 0o600 })
    const { uid, gid } = user
    if (uid !== undefined && gid !== undefined) for (const one of [home, file]) chownSync(one, uid, gid)
    return {
      name, command: 'patroni', args: [file], log: join(folder, `${name}.log`), user,
      env: { PATH: process.env.PATH, HOME: home, LANG: 'C.UTF-8' },
      alsoEnd: () => endPostgres(join(home, 'data')),
    }
  })
}

/** Where each database is, as its Patroni says. @param {Ground} ground @returns {Promise<Node[]>} */
export function whereDatabasesAre({ ports }) {
  return Promise.all(ports.rest.map(async (rest, i) => {
    const name = `db${i + 1}`, port = /** @type {number} */ (ports.postgres[i])
    const away = { name, role: /** @type {const} */ ('away'), port, state: 'gone' }
    const said = await fetch(`http://127.0.0.1:${rest}/patroni`, { signal: AbortSignal.timeout(3000) })
      .then(r => r.json(), () => undefined)
    if (said?.state !== 'running') return { ...away, state: said?.state ?? 'gone' }
    const role = /^(master|primary)$/.test(said.role) ? 'primary' : 'standby'
    const state = said.sync_standby ? 'in step' : 'running'
    return { name, role: /** @type {'primary' | 'standby'} */ (role), port, state }
  }))
}

/**
 * Waits until one is written to and another keeps in step with it. @param {Ground} ground @param {number} [most] ms
 */
export async function databasesReady(ground, most = 240_000) {
  for (const deadline = Date.now() + most; ;) {
    const nodes = await whereDatabasesAre(ground)
    if (nodes.some(n => n.role === 'primary') && nodes.some(n => n.state === 'in step')) return nodes
    if (Date.now() > deadline) throw new Plain(`The databases did not come up; see ${ground.folder}/db1.log.`)
    await new Promise(done => setTimeout(done, 500))
  }
}
