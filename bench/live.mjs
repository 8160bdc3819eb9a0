// @ts-check
import { randomUUID } from 'node:crypto'
import pg from 'pg'

/**
 * Events on a running product: how fast they are taken (HTTP in, committed, projected, announced) and how soon they are
 * on fifty other devices.
 * bin/start, then DATABASE_URL=… node bench/live.mjs; the same database's plain insert rate stands beside it.
 */
const base = process.env.BASE ?? 'http://127.0.0.1:4780'
const headers = { 'origin': base, 'content-type': 'application/json', 'cookie': '' }
const entrance = await fetch(`${base}/api/demo-entrance`, { method: 'POST', headers })
headers.cookie = entrance.headers.getSetCookie().map(c => c.split(';')[0]).join('; ')
const session = await (await fetch(`${base}/api/session`, { headers })).json()
const plan = (await (await fetch(`${base}/api/plans`, { headers })).json())[0].plan
async function startPour() {
  const id = randomUUID()
  const answer = await fetch(`${base}/api/pours`, {
    method: 'POST',
    headers,
    body: JSON.stringify({
      id,
      plan: { ...plan, name: 'Bench' },
      startedAt: session.clock.now,
      device: 'bench',
      deviceSeq: 0,
      eventId: randomUUID(),
    }),
  })
  if (!answer.ok) throw new Error(await answer.text())
  return id
}
/** A class’s worth at a time. @param {number} n */
async function startPours(n) {
  const ids = []
  while (ids.length < n) ids.push(...await Promise.all(Array.from({ length: Math.min(20, n - ids.length) }, startPour)))
  return ids
}
let seq = 0
/** How far a device has each pour, as the product's own pages tell. */
const known = new Map()
const event = () => ({
  id: randomUUID(),
  kind: 'mark',
  data: { sign: 'webbing' },
  version: 1,
  batch: 0,
  happenedAt: session.clock.now + seq,
  recordedAt: session.clock.now + seq,
  device: 'bench',
  deviceSeq: ++seq,
})
/** @param {number[]} list @param {number} p */
const quantile = (list, p) => list.sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(p * list.length))] ?? 0

/** @param {number} devices @param {number} perRequest @param {number} seconds */
async function append(devices, perRequest, seconds) {
  const times = /** @type {number[]} */ ([]), pours = await startPours(4 * devices)
  let taken = 0
  const until = performance.now() + seconds * 1000
  await Promise.all(Array.from({ length: devices }, async (_, d) => {
    // Each device has four pours of its own and goes from one to the next, as a class does.
    for (let turn = 0; performance.now() < until; turn++) {
      const pour = pours[4 * d + turn % 4]
      const before = performance.now()
      const answer = await fetch(`${base}/api/pours/${pour}/events`, {
        method: 'POST',
        headers,
        body: JSON.stringify({
          sentAt: session.clock.now,
          after: known.get(pour),
          events: Array.from({ length: perRequest }, event),
        }),
      })
      if (!answer.ok) throw new Error(await answer.text())
      known.set(pour, (await answer.json()).seq)
      times.push(performance.now() - before)
      taken += perRequest
    }
  }))
  console.log(
    `${devices} devices, ${perRequest} ${perRequest === 1 ? 'event' : 'events'} a request: ${
      Math.round(taken / seconds)
    } events/s, median ${quantile(times, 0.5).toFixed(1)} ms, 99 % ${quantile(times, 0.99).toFixed(1)} ms`,
  )
}
await startPours(1)
for (
  const [devices, perRequest] of /** @type {const} */ ([[1, 1], [8, 1], [50, 1], [2, 20], [3, 20], [4, 20], [20, 10]])
) await append(devices, perRequest, 6)

const client = new pg.Client({ connectionString: process.env.DATABASE_URL })
await client.connect()
await client.query('create temporary table plain (id uuid primary key, body jsonb)')
for (const rows of [1, 20]) {
  let n = 0
  for (const until = performance.now() + 3000; performance.now() < until; n += rows)
    await client.query(`insert into plain select gen_random_uuid(), '{"kind":"mark"}' from generate_series(1, ${rows})`)
  console.log(
    `plain insert, ${rows} ${rows === 1 ? 'row' : 'rows'} a transaction, one connection: ${Math.round(n / 3)} rows/s`,
  )
}
await client.end()

// Fifty streams, one sender: from the moment it is sent until it is heard.
const heard = new Map(),
  arrived = /** @type {[number, number][]} */ ([]),
  late = /** @type {number[]} */ ([]),
  [pour] = await startPours(1),
  stop = new AbortController()
await Promise.all(Array.from({ length: 50 }, async () => {
  const stream = await fetch(`${base}/api/live`, { headers, signal: stop.signal }),
    reader = /** @type {ReadableStream<Uint8Array>} */ (stream.body).pipeThrough(new TextDecoderStream()).getReader()
  await reader.read()
  void (async () => {
    let text = ''
    for (;;) {
      const { value, done } = await reader.read().catch(() => ({ value: '', done: true }))
      if (done) return
      text += value
      for (let end = text.indexOf('\n\n'); end >= 0; end = text.indexOf('\n\n')) {
        const found = /"seq":(\d+)/.exec(text.slice(0, end))
        if (found) arrived.push([Number(found[1]), performance.now()])
        text = text.slice(end + 2)
      }
    }
  })()
}))
for (let i = 0; i < 60; i++) {
  const sent = performance.now()
  const answer = await fetch(`${base}/api/pours/${pour}/events`, {
    method: 'POST',
    headers,
    body: JSON.stringify({ sentAt: session.clock.now, events: [event()] }),
  })
  const { seq: at } = await answer.json()
  heard.set(at, sent)
  await new Promise(done => setTimeout(done, 40))
}
await new Promise(done => setTimeout(done, 500))
stop.abort()
for (const [seq, at] of arrived) if (heard.has(seq)) late.push(at - heard.get(seq))
console.log(
  `on 50 other devices: median ${quantile(late, 0.5).toFixed(1)} ms after it was sent, 99 % ${
    quantile(late, 0.99).toFixed(1)
  } ms (${late.length} heard)`,
)
process.exit(0)
