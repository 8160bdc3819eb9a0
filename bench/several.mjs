// @ts-check
import { randomUUID } from 'node:crypto'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { startSeveral } from '../bin/several/several.mjs'

/**
 * Several servers on several databases: what an entry and a read cost there, what two servers carry beside one, and
 * how long it takes from a killed database to the next acknowledged entry. All on this machine's cores.
 * `node bench/several.mjs [KILLS]`
 */
const kills = Number(process.argv[2] ?? 3), folder = mkdtempSync(join(tmpdir(), 'ripples-bench-'))
const several = await startSeveral(folder, { demo: true })
/** @param {number[]} list @param {number} p */
const quantile = (list, p) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(p * list.length))] ?? 0
const headers = { 'content-type': 'application/json', 'origin': several.url, 'cookie': '' }
/** @param {string} at @param {string} path @param {object} [body] */
const ask = (at, path, body) => fetch(`${at}/api/${path}`, {
  method: body ? 'POST' : 'GET', headers: { ...headers, origin: at }, ...body && { body: JSON.stringify(body) },
})
const entrance = await ask(several.url, 'demo-entrance', {})
headers.cookie = entrance.headers.getSetCookie().map(c => c.split(';')[0]).join('; ')
const { clock } = await (await ask(several.url, 'session')).json()
const [{ plan }] = await (await ask(several.url, 'plans')).json()

/** @param {string} at */
async function device(at) {
  const id = randomUUID()
  let told = 0
  await ask(at, 'pours', { id, plan, startedAt: clock.now, device: id, deviceSeq: 0, eventId: randomUUID() })
  return async () => {
    const at1 = clock.now + told
    const event = {
      id: randomUUID(), kind: 'note', data: { text: 'bench' }, version: 2, happenedAt: at1, recordedAt: at1, device: id,
      deviceSeq: ++told,
    }
    return (await ask(at, `pours/${id}/events`, { sentAt: at1, after: told - 1, events: [event] })).ok
  }
}

/** @param {string} what @param {string[]} servers @param {number} devices */
async function carries(what, servers, devices) {
  const all = await Promise.all(Array.from({ length: devices }, (_, i) =>
    device(/** @type {string} */ (servers[i % servers.length]))))
  /** @type {number[]} */
  const times = []
  const until = performance.now() + 10_000
  await Promise.all(all.map(async (tell) => {
    while (performance.now() < until) {
      const before = performance.now()
      if (await tell()) times.push(performance.now() - before)
    }
  }))
  console.log(`${what}: ${(times.length / 10).toFixed(0)} entries/s, median ${quantile(times, 0.5).toFixed(1)} ms, `
    + `99 % ${quantile(times, 0.99).toFixed(1)} ms`)
}

/** @param {string} path */
async function reads(path) {
  /** @type {number[]} */
  const times = []
  for (let i = 0; i < 100; i++) {
    const before = performance.now()
    await (await ask(several.url, path)).text()
    times.push(performance.now() - before)
  }
  console.log(`${path}: median ${quantile(times, 0.5).toFixed(1)} ms, 95 % ${quantile(times, 0.95).toFixed(1)} ms`)
}

try {
  await carries('one device, one server', several.apps.slice(0, 1), 1)
  await carries('eight devices, one server', several.apps.slice(0, 1), 8)
  await carries('eight devices, two servers', several.apps, 8)
  await carries('sixteen devices, two servers', several.apps, 16)
  await reads('logbook/pours')
  await reads('plans')
  const tell = await device(several.url)
  for (let kill = 0; kill < kills; kill++) {
    await several.ready()
    const primary = /** @type {{ name: string }} */ ((await several.databases()).find(d => d.role === 'primary')).name
    await several.kill(primary)
    const gone = performance.now()
    while (!await tell().catch(() => false)) await new Promise(done => setTimeout(done, 100))
    console.log(`${primary} killed: next entry acknowledged after ${((performance.now() - gone) / 1000).toFixed(1)} s`)
    several.again(primary)
  }
  await several.ready()
  for (const name of ['etcd1', 'etcd2']) await several.kill(name)
  let told = 0, refused = 0
  for (const until = performance.now() + 45_000; performance.now() < until;) {
    if (await tell().catch(() => false)) told++
    else refused++
    await new Promise(done => setTimeout(done, 100))
  }
  console.log(`two of three etcd members gone for 45 s: ${told} entries acknowledged, ${refused} not`)
}
finally {
  await several.stop()
  rmSync(folder, { recursive: true, force: true })
}
process.exit(0)
