// @ts-check
import { spawnSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { Plain } from '../say.mjs'

/** HAProxy in front: one address for browsers, one for the database that is written to, one for those that are read. */

/** @typedef {import('./ground.mjs').Ground} Ground */

/** @param {Ground} ground */
function configuration({ ports }) {
  const nodes = ports.postgres.map((port, i) => `  server db${i + 1} 127.0.0.1:${port} check port ${ports.rest[i]}`).join('\n')
  const apps = ports.apps.map((port, i) => `  server app${i + 1} 127.0.0.1:${port} check`).join('\n')
  return `global
  maxconn 4000

defaults
  timeout connect 3s
  timeout client 1h
  timeout server 1h
  timeout check 3s

# The one database that is written to. Connections that listen say nothing for hours: they are not ended for it.
listen primary
  bind 127.0.0.1:${ports.primary}
  mode tcp
  timeout client 24h
  timeout server 24h
  option clitcpka
  option srvtcpka
  option httpchk
  http-check send meth OPTIONS uri /primary
  http-check expect status 200
  default-server inter 1s fall 2 rise 1 on-marked-down shutdown-sessions
${nodes}

# The one that keeps in step with it: it shows whatever was acknowledged.
listen standbys
  bind 127.0.0.1:${ports.standbys}
  mode tcp
  option httpchk
  http-check send meth OPTIONS uri /sync
  http-check expect status 200
  default-server inter 2s fall 2 rise 1 on-marked-down shutdown-sessions
${nodes}

# Whatever answers at all serves: that the database is away is told by the product itself, in its words.
listen product
  bind 127.0.0.1:${ports.product}
  mode http
  balance leastconn
  timeout http-request 30s
  option redispatch 1
  retry-on conn-failure
  option httpchk
  http-check send meth GET uri /health
  http-check expect status 200,503
  default-server inter 1s fall 2 rise 1 on-marked-down shutdown-sessions
${apps}
`
}

/** @param {Ground} ground @returns {import('./programs.mjs').Program} */
export function proxyProgram(ground) {
  const file = join(ground.folder, 'haproxy.cfg')
  writeFileSync(file, configuration(ground), { mode: 0o644 })
  const judged = spawnSync('/usr/sbin/haproxy', ['-c', '-f', file], { encoding: 'utf8' })
  if (judged.status !== 0) throw new Plain(`HAProxy does not take its file:\n${judged.stderr.trim()}`)
  return {
    name: 'proxy', command: '/usr/sbin/haproxy', args: ['-db', '-f', file], log: join(ground.folder, 'proxy.log'),
    user: ground.user, env: { PATH: process.env.PATH },
  }
}
