import { randomUUID } from 'node:crypto'
import { BUCKETS, makeIds, MOULDS, planOf, WISHES } from '../demo/saltmarsh'
import { chance } from '../demo/random'

/**
 * The doors under a crowd: signing in while forty strangers guess, and entries while as many streams are open as may
 * be. On an own, empty workshop: DATABASE_URL=… PORT=4790 bin/start --no-demo, then
 * BASE=http://127.0.0.1:4790 npx tsx --tsconfig tsconfig.tools.json bench/doors.ts
 */
const base = process.env.BASE ?? 'http://127.0.0.1:4790'
const STRANGERS = 40, SIGN_INS = 60, STREAMS = 300, ENTRIES = 200
const PASSWORD = 'four unlikely words here', EMAIL = 'bench@example.org'

async function ask(method: string, path: string, body?: unknown, cookie = '') {
  const answer = await fetch(`${base}/api/${path}`, {
    method, headers: { 'origin': base, 'content-type': 'application/json', cookie }, body: body === undefined ? undefined : JSON.stringify(body),
  })
  const cookies = answer.headers.getSetCookie().map(c => c.split(';')[0]).join('; ')
  return { status: answer.status, text: await answer.text(), cookies }
}
const quantile = (list: number[], p: number) =>
  list.sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(p * list.length))] ?? 0
const told = (what: string, times: number[]) =>
  console.log(`${what}: median ${quantile(times, 0.5).toFixed(1)} ms, 95 % ${quantile(times, 0.95).toFixed(1)} ms`)
async function timed(work: () => Promise<unknown>): Promise<number> {
  const before = performance.now()
  await work()
  return performance.now() - before
}

const signIn = (cookie = '') => ask('POST', 'session', { email: EMAIL, password: PASSWORD }, cookie)
const made = await ask('POST', 'owner', { workshop: 'Bench', name: 'B', email: EMAIL, password: PASSWORD })
const { cookies } = made.status === 200 ? made : await signIn()
const device = cookies.split('; ').find(c => c.includes('device'))!

async function flood(): Promise<void> {
  let over = false, guesses = 0
  const answers = new Map<number, number>()
  const strangers = Array.from({ length: STRANGERS }, async (_, i) => {
    while (!over) {
      const { status } = await ask('POST', 'session', { email: i % 2 ? EMAIL : `s${i}@example.org`, password: `guess ${guesses++}` })
      answers.set(status, (answers.get(status) ?? 0) + 1)
    }
  })
  const times: number[] = []
  while (times.length < SIGN_INS) times.push(await timed(() => signIn(device)))
  over = true
  await Promise.all(strangers)
  told(`signing in from a known browser beside ${STRANGERS} strangers`, times)
  console.log(`they were answered ${[...answers].map(([s, n]) => `${s}: ${n}`).join(', ')}`)
}

async function crowd(): Promise<void> {
  const ids = makeIds(chance(5)), pour = randomUUID(), now = Date.now()
  await ask('PUT', `library/mould/${ids.moulds.lantern}`, { body: MOULDS.lantern, revision: 0 }, cookies)
  await ask('PUT', `library/bucket/${ids.buckets.bowl}`, { body: BUCKETS.bowl, revision: 0 }, cookies)
  await ask('POST', 'pours', {
    id: pour, plan: { ...planOf(ids, WISHES.lanterns), bag: undefined }, startedAt: now, device: 'b', deviceSeq: 0,
    eventId: randomUUID(),
  }, cookies)
  const gone = new AbortController()
  const open = () => fetch(`${base}/api/live`, { headers: { cookie: cookies }, signal: gone.signal })
  const streams = await Promise.all(Array.from({ length: STREAMS }, open))
  for (const { body } of streams) void body?.pipeTo(new WritableStream()).catch(() => {})
  const more = await open()
  console.log(`${streams.filter(s => s.ok).length} streams open; one more: ${more.status} ${(await more.text()).slice(0, 200)}`)
  const times: number[] = []
  for (let i = 0; i < ENTRIES; i++) {
    const event = {
      id: randomUUID(), kind: 'mark', data: { sign: 'webbing' }, version: 1, batch: 0, happenedAt: now + i, recordedAt: now + i,
      device: 'b', deviceSeq: i + 1,
    }
    times.push(await timed(() => ask('POST', `pours/${pour}/events`, { sentAt: Date.now(), events: [event], after: i + 1 }, cookies)))
  }
  told(`an entry while ${STREAMS} streams are open`, times)
  gone.abort()
}

await flood()
await crowd()
