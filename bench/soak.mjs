// @ts-check
import { randomUUID } from 'node:crypto'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { startSeveral } from '../bin/several/several.mjs'

/**
 * An hour of a busy school: fifty benches at a person's pace, three walls, two imports at a time, on two servers and
 * three databases of which each is killed and comes back in turn during the first half. Then: is everything there that
 * was acknowledged, does every page hear again, and does memory stay? `node bench/soak.mjs [MINUTES]`
 */
const minutes = Number(process.argv[2] ?? 60), folder = mkdtempSync(join(tmpdir(), 'ripples-soak-'))
const BENCHES = 50, WALLS = 3, PACE_MS = 4000, ENTRIES_A_POUR = 60
const several = await startSeveral(folder, { demo: true })
const began = Date.now(), passed = () => (Date.now() - began) / 60_000
const wait = (/** @type {number} */ ms) => new Promise(done => setTimeout(done, ms))
const say = (/** @type {string} */ line) => console.log(`${passed().toFixed(1).padStart(5)} min  ${line}`)
const headers = { 'content-type': 'application/json', 'origin': several.url, 'cookie': '' }
/** @param {string} path @param {object} [body] */
const ask = (path, body) => fetch(`${several.url}/api/${path}`, {
  method: body ? 'POST' : 'GET', headers, signal: AbortSignal.timeout(60_000), ...body && { body: JSON.stringify(body) },
})
/** Until it is taken, as it was: what a browser's outbox does. @param {string} path @param {object} body */
async function insist(path, body) {
  for (;;) {
    const answer = await ask(path, body).catch(() => undefined)
    if (answer?.ok) return answer.json()
    if (answer && answer.status < 500) throw new Error(`${path}: ${answer.status} ${await answer.text()}`)
    await wait(1000)
  }
}

let over = false
/** A page that listens, and comes back. @param {string} path @param {(text: string) => void} heard */
async function listen(path, heard) {
  while (!over) {
    try {
      const answer = await fetch(`${several.url}/api/${path}`, { headers })
      if (!answer.ok || !answer.body) throw new Error(String(answer.status))
      const reader = answer.body.pipeThrough(new TextDecoderStream()).getReader()
      for (let part = await reader.read(); !part.done && !over; part = await reader.read()) heard(part.value)
      await reader.cancel()
    }
    catch { /* It comes back. */ }
    await wait(500 + Math.random() * 1000)
  }
}

const entrance = await ask('demo-entrance', {})
headers.cookie = entrance.headers.getSetCookie().map(c => c.split(';')[0]).join('; ')
const { clock } = await (await ask('session')).json(), [{ plan }] = await (await ask('plans')).json()
const [mould] = await (await ask('library/mould')).json()
const now = () => clock.now + (Date.now() - began) * clock.rate

/** What was acknowledged, by pour. @type {Map<string, Set<string>>} */
const told = new Map()
/** When each page heard of anything last. @type {number[]} */
const heardAt = []

/** @param {number} n */
async function bench(n) {
  void listen('live', () => {
    heardAt[n] = Date.now()
  })
  await wait(Math.random() * PACE_MS)
  while (!over) {
    const id = randomUUID(), ids = new Set([randomUUID()]), device = `soak-${n}`
    await insist('pours', { id, plan, startedAt: now(), device, deviceSeq: 0, eventId: [...ids][0] })
    told.set(id, ids)
    for (let seq = 1; seq <= ENTRIES_A_POUR && !over; seq++) {
      const at = now(), event = {
        id: randomUUID(), kind: 'note', data: { text: `Bench ${n}` }, version: 2, happenedAt: at, recordedAt: at, device, deviceSeq: seq,
      }
      await insist(`pours/${id}/events`, { sentAt: at, after: seq, events: [event] })
      ids.add(event.id)
      await wait(PACE_MS * (0.5 + Math.random()))
    }
  }
}

/** @type {number[]} */
const wallSeen = []
/** @param {number} n */
async function wall(n) {
  const { token } = await insist('links', { kind: 'wall', name: `Wall ${n}` })
  let due = true
  void listen(`wall/${token}/live`, () => {
    due = true
  })
  while (!over) {
    if (due && (await ask(`wall/${token}`).then(r => r.ok, () => false))) {
      wallSeen[n] = Date.now()
      due = false
    }
    await wait(1000)
  }
}

/** @type {Record<string, number>} How imports ended, by state. */
const imports = {}
async function importing() {
  for (let n = 0; !over; n++) {
    const year = 2001 + n % 24
    const rows = Array.from({ length: 200 }, (_, i) => ({
      date: `${year}-${String(1 + i % 12).padStart(2, '0')}-${String(1 + i % 28).padStart(2, '0')}`,
      mould: mould.id, pieces: 1, classId: 'pottery-plaster', good: 1, defects: [], note: `Row ${i}`,
    }))
    const { id } = await insist('import', { kind: 'pours', file: `${year}.csv`, rows })
    for (let state = 'waiting'; /^(waiting|checking|taking)/.test(state) && !over;) {
      await wait(2000)
      /** @type {{ id: string, state: string }[]} */
      const jobs = await ask('imports').then(r => r.ok ? r.json() : [], () => [])
      state = jobs.find(j => j.id === id)?.state ?? state
      if (!/^(waiting|checking|taking)/.test(state)) imports[state] = (imports[state] ?? 0) + 1
    }
    await wait(60_000)
  }
}

/** Each is killed, and comes back: in the first half. */
async function killing() {
  const names = several.names, every = minutes * 60_000 / 2 / names.length
  for (const name of names) {
    const next = Date.now() + every
    await several.kill(name)
    say(`${name} killed; ${[...told.values()].reduce((n, s) => n + s.size, 0)} entries so far`)
    await wait(Math.min(every / 2, /^(db|etcd)/.test(name) ? 40_000 : 5000))
    several.again(name)
    await several.ready()
    await wait(Math.max(0, next - Date.now()))
  }
}

/** @param {string} app @returns {Promise<number>} MB */
async function memoryOf(app) {
  const text = await (await fetch(`${app}/metrics`)).text()
  return Number(/^ripples_process_resident_memory_bytes (\S+)/m.exec(text)?.[1]) / 1e6
}
const median = (/** @type {number[]} */ list) => [...list].sort((a, b) => a - b)[list.length >> 1] ?? NaN

/** In the second half, a quarter of it after the last kill: warm by then. @returns {Promise<[string, number[]][]>} */
async function watchMemory() {
  while (passed() < minutes * 5 / 8) await wait(1000)
  /** @type {[string, number[]][]} */
  const seen = several.apps.map(app => [app, []])
  while (passed() < minutes) {
    for (const [app, list] of seen) list.push(await memoryOf(app).catch(() => NaN))
    await wait(minutes * 60_000 / 100)
  }
  return seen
}

let failed = false
for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM'])) process.once(signal, () => {
  over = true
  void several.stop().then(() => process.exit(1))
})
const fault = (/** @type {boolean} */ wrong, /** @type {string} */ line) => {
  failed ||= wrong
  say(`${wrong ? 'WRONG: ' : ''}${line}`)
}
try {
  const work = [
    ...Array.from({ length: BENCHES }, (_, n) => bench(n)), ...Array.from({ length: WALLS }, (_, n) => wall(n)),
    importing(), importing(),
  ]
  const [memory] = await Promise.all([watchMemory(), killing()])
  const late = (/** @type {number} */ at) => Date.now() - at > 30_000
  const deaf = heardAt.filter(late).length, blind = wallSeen.filter(late).length
  over = true
  await Promise.all(work)
  let lost = 0, all = 0
  for (const [pour, ids] of told) {
    /** @type {{ events: { id: string }[] }} */
    const { events } = await (await ask(`pours/${pour}`)).json(), there = new Set(events.map(e => e.id))
    all += ids.size
    lost += [...ids].filter(id => !there.has(id)).length
  }
  fault(lost > 0, `${all} entries acknowledged in ${told.size} pours, ${lost} lost`)
  fault(deaf > 0 || heardAt.length < BENCHES, `${deaf} of ${heardAt.length} pages heard nothing in the last half minute`)
  fault(blind > 0 || wallSeen.length < WALLS, `${blind} of ${wallSeen.length} walls saw nothing in the last half minute`)
  fault(!imports.done, `imports: ${JSON.stringify(imports)}`)
  for (const [app, list] of memory) {
    const quarter = Math.max(1, list.length >> 2)
    const was = median(list.slice(0, quarter)), is = median(list.slice(-quarter))
    fault(!(is < was * 1.2 + 20), `${app}: ${was.toFixed(0)} MB, then ${is.toFixed(0)} MB, at most ${Math.max(...list).toFixed(0)}`)
  }
}
finally {
  over = true
  await several.stop()
  rmSync(folder, { recursive: true, force: true })
}
process.exit(failed ? 1 : 0)
