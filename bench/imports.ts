import { createHash, randomUUID } from 'node:crypto'
import { createWriteStream, readFileSync } from 'node:fs'
import { pipeline } from 'node:stream/promises'
import yazl from 'yazl'
import { hashOfFiles } from '../server/archive/write'
import { BUCKETS, makeIds, MOULDS, planOf, WISHES } from '../demo/saltmarsh'
import { chance } from '../demo/random'

/**
 * Files on their way in beside other people's entries: one that unpacks to 250 MB of names, and two tables of a
 * thousand pours at once. On an own, empty workshop: DATABASE_URL=… PORT=4790 bin/start --no-demo, then
 * BASE=http://127.0.0.1:4790 npx tsx --tsconfig tsconfig.tools.json bench/imports.ts
 */
const base = process.env.BASE ?? 'http://127.0.0.1:4790'
const headers = { 'origin': base, 'content-type': 'application/json' }
let cookie = ''
async function ask(method: string, path: string, body?: unknown, type = 'application/json'): Promise<Response> {
  const raw = body === undefined || body instanceof Uint8Array ? body : JSON.stringify(body)
  return fetch(`${base}/api/${path}`, {
    method, headers: { ...headers, 'content-type': type, cookie }, body: raw as BodyInit | undefined,
  })
}
const quantile = (list: readonly number[], p: number) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(p * list.length))] ?? 0

const ids = makeIds(chance(5)), pour = randomUUID(), now = Date.now()
async function open(): Promise<void> {
  const made = await ask('POST', 'owner', {
    workshop: 'Bench', name: 'B', email: 'imports@example.org', password: 'four unlikely words here',
  })
  cookie = made.headers.getSetCookie().map(c => c.split(';')[0]).join('; ')
}
async function begin(): Promise<void> {
  await ask('PUT', `library/mould/${ids.moulds.lantern}`, { body: MOULDS.lantern, revision: 0 })
  await ask('PUT', `library/bucket/${ids.buckets.bowl}`, { body: BUCKETS.bowl, revision: 0 })
  await ask('POST', 'pours', {
    id: pour, plan: { ...planOf(ids, WISHES.lanterns), bag: undefined }, startedAt: now, device: 'b', deviceSeq: 0,
    eventId: randomUUID(),
  })
}

let told = 0
/** Other people's entries without pause, until this is over. */
async function entriesBeside<T>(what: string, work: Promise<T>): Promise<T> {
  let over = false
  const times: number[] = [], end = work.finally(() => {
    over = true
  })
  while (!over) {
    const before = performance.now()
    const event = {
      id: randomUUID(), kind: 'mark', data: { sign: 'webbing' }, version: 1, batch: 0, happenedAt: now + told,
      recordedAt: now + told, device: 'b', deviceSeq: ++told,
    }
    await (await ask('POST', `pours/${pour}/events`, { sentAt: Date.now(), events: [event], after: told })).text()
    times.push(performance.now() - before)
  }
  const [median, most] = [quantile(times, 0.5), quantile(times, 0.95)]
  console.log(`entries beside ${what}: ${times.length}, median ${median.toFixed(1)} ms, 95 % ${most.toFixed(1)} ms`)
  return end
}

interface Job { readonly id: string, readonly state: string, readonly fault?: { readonly sentence: string } }
async function ended(id: string): Promise<Job> {
  for (;;) {
    const job = (await (await ask('GET', 'imports')).json() as Job[]).find(j => j.id === id)
    if (job && !/^(waiting|checking|taking)/.test(job.state)) return job
    await new Promise(done => setTimeout(done, 30))
  }
}

/** A file of names that says of itself what is so: nothing in it is wrong but how much it is. */
async function fileOf(name: string, contents: Buffer, manifest: (hash: string) => object): Promise<Buffer> {
  const zip = new yazl.ZipFile(), path = `/tmp/bench-${randomUUID()}.zip`, hash = createHash('sha256').update(contents).digest('hex')
  zip.addBuffer(contents, name)
  if (name !== 'nine-ripples.json') zip.addBuffer(Buffer.from(JSON.stringify(manifest(hash))), 'nine-ripples.json')
  zip.end()
  await pipeline(zip.outputStream, createWriteStream(path))
  return readFileSync(path)
}
const head = { format: 'nine-ripples workshop', version: 1, made: new Date().toISOString() }

async function refuse(what: string, file: Buffer): Promise<void> {
  const before = performance.now()
  const work = (async () => {
    const { id } = await (await ask('POST', 'archive', file, 'application/zip')).json() as { id: string }
    return ended(id)
  })()
  const job = await entriesBeside(what, work)
  const took = performance.now() - before
  console.log(`${what}, ${(file.length / 1e6).toFixed(1)} MB packed: ${job.state} in ${took.toFixed(0)} ms: ${job.fault?.sentence}`)
}

async function tables(): Promise<void> {
  const rows = (k: number) => Array.from({ length: 1000 }, (_, i) => ({
    date: `20${10 + k}-${String(1 + i % 12).padStart(2, '0')}-${String(1 + i % 28).padStart(2, '0')}`,
    mould: ids.moulds.lantern, pieces: 1 + i % 4, classId: 'pottery-plaster', good: 1, defects: [], note: `Row ${i}`,
  }))
  const one = async (k: number) => {
    const before = performance.now()
    const { id } = await (await ask('POST', 'import', { kind: 'pours', rows: rows(k) })).json() as { id: string }
    const { state } = await ended(id)
    console.log(`table ${k}: ${state} after ${((performance.now() - before) / 1000).toFixed(1)} s`)
  }
  await entriesBeside('two tables of 1 000 pours', Promise.all([one(1), one(2)]))
}

await open()
await begin()
// What nobody is working at, for comparison.
await entriesBeside('nothing', new Promise(done => setTimeout(done, 4000)))
const lines = Buffer.from(Array.from({ length: 5_000_000 }, (_, i) => `{"name":"Person ${i} ${'x'.repeat(30)}"}`).join('\n'))
await refuse('250 MB of people’s names', await fileOf('people.jsonl', lines, (hash) => {
  const files = { 'people.jsonl': hash }
  return { ...head, files, hash: hashOfFiles(files) }
}))
const names = Object.fromEntries(Array.from({ length: 1_500_000 }, (_, i) => [`photos/${i}${'x'.repeat(80)}.jpg`, 'f'.repeat(64)]))
const manifest = Buffer.from(JSON.stringify({ ...head, files: names, hash: 'f'.repeat(64) }))
await refuse('a list of 250 MB of files’ names', await fileOf('nine-ripples.json', manifest, () => ({})))
await tables()
