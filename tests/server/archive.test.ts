import { createHash, randomBytes, randomUUID } from 'node:crypto'
import { once } from 'node:events'
import { createWriteStream, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { gzipSync } from 'node:zlib'
import fc from 'fast-check'
import { sql } from 'kysely'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import yauzl from 'yauzl'
import yazl from 'yazl'
import { METRIC } from '../../core/units/units'
import { REAL_TIME } from '../../contract/clock'
import type { SentEvent } from '../../contract/pour'
import { seedDemo } from '../../demo/seed'
import { ArchiveRefused, openArchive } from '../../server/archive/read'
import { archiveOf, hashOfFiles } from '../../server/archive/write'
import { logbookQuerySchema } from '../../contract/logbook'
import { saveView, talliesOfWorkshop } from '../../server/store/logbook'
import { keepPhoto } from '../../server/store/photos'
import { beginMesh, finishMesh, putPart } from '../../server/store/meshes'
import type { Db } from '../../server/store/open'
import { castRows, pourRows } from '../../server/store/pours'
import { recordEvents, startPour } from '../../server/store/recording'
import { within, type Scope } from '../../server/store/scope'
import { createWithOwner } from '../../server/store/workshops'
import { cleanJpeg } from '../../server/photos/jpeg'
import { bring } from './bringing'
import { freshDatabase } from './fresh'

const folder = mkdtempSync(join(tmpdir(), 'ripples-archive-test-'))
let made = 0
const file = () => join(folder, `${++made}.zip`)
const NOW = Date.UTC(2026, 10, 20, 12)
/** The smallest JPEG there is: enough of one for what is checked here, with a place written in it. */
const JPEG = Buffer.concat([
  Buffer.from('ffd8ffe1000a4578696600002a00ffc0000b080010001001011100ffda0008010100003f00', 'hex'),
  randomBytes(40).map(b => b & 0x7F),
  Buffer.from('ffd9', 'hex'),
])

async function save(db: Db, workshop: string): Promise<string> {
  const path = file()
  await pipeline(archiveOf(db, workshop), createWriteStream(path))
  return path
}
async function empty(): Promise<{ db: Db, close: () => Promise<void>, workshop: string, scope: Scope }> {
  const { db, close } = await freshDatabase()
  const { workshopId } = await createWithOwner(db, { name: 'New', units: METRIC, clock: REAL_TIME, demo: false }, {
    name: 'O',
    email: 'owner@example.org',
    passwordHash: 'x',
  })
  return { db, close, workshop: workshopId, scope: within(db, workshopId) }
}
async function contents(path: string): Promise<Map<string, Buffer>> {
  const files = new Map<string, Buffer>()
  await new Promise<void>((resolve, reject) =>
    yauzl.open(path, { lazyEntries: true }, (error, zip) => {
      if (error) return reject(error)
      zip.on('end', resolve).on('error', reject).on('entry', (entry: yauzl.Entry) =>
        zip.openReadStream(entry, (e, stream) => {
          if (e)
            return reject(e)
          const parts: Buffer[] = []
          stream.on('data', p => parts.push(p as Buffer)).on('end', () => {
            files.set(entry.fileName, Buffer.concat(parts))
            zip.readEntry()
          })
        }))
      zip.readEntry()
    }),
  )
  return files
}
/** An archive with some files as someone made them, and hashes that fit. */
async function forged(
  from: ReadonlyMap<string, Buffer>,
  change: Record<string, string | Buffer | undefined>,
  manifest: object = {},
): Promise<string> {
  const files = new Map([...from].filter(([name]) => name !== 'nine-ripples.json'))
  for (const [name, bytes] of Object.entries(change)) {
    if (bytes === undefined) files.delete(name)
    else files.set(name, Buffer.from(bytes))
  }
  const hashes = Object.fromEntries(
    [...files].map(([name, bytes]) => [name, createHash('sha256').update(bytes).digest('hex')]),
  )
  files.set(
    'nine-ripples.json',
    Buffer.from(
      JSON.stringify({
        ...JSON.parse(from.get('nine-ripples.json')!.toString()),
        files: hashes,
        hash: hashOfFiles(hashes),
        ...manifest,
      }),
    ),
  )
  const zip = new yazl.ZipFile(), path = file()
  for (const [name, bytes] of files) zip.addBuffer(bytes, name)
  zip.end()
  await pipeline(zip.outputStream, createWriteStream(path))
  return path
}

let db: Db, close: () => Promise<void>, scope: Scope, path: string, hash: string, good: Map<string, Buffer>
beforeAll(async () => {
  ({ db, close } = await freshDatabase())
  await seedDemo(db, NOW)
  const { id } = await db.selectFrom('workshop').select('id').executeTakeFirstOrThrow()
  scope = within(db, id)
  const [mould] = await scope.select('library_item').select('id').where('kind', '=', 'mould').execute()
  await keepPhoto(scope, randomUUID(), { mould: mould!.id }, 'The face', cleanJpeg(JPEG)!)
  const { id: poured } = (await pourRows(scope)).find(r => r.summary.status === 'finished')!
  await keepPhoto(scope, randomUUID(), { pour: poured, cast: '1.1' }, '', cleanJpeg(JPEG)!)
  const mesh = randomUUID(), packed = gzipSync(randomBytes(3000))
  await beginMesh(scope, mesh, { mould: mould!.id, name: 'face.stl', unit: 'mm', triangles: 60, parts: 2 })
  await putPart(scope, mesh, 0, packed.subarray(0, 1000))
  await putPart(scope, mesh, 1, packed.subarray(1000))
  await finishMesh(scope, mesh)
  await saveView(scope, {
    id: randomUUID(),
    name: 'Waste',
    query: logbookQuerySchema.parse({ facts: ['verdict:waste'] }),
  })
  path = await save(db, scope.workshopId)
  good = await contents(path)
  hash = JSON.parse(good.get('nine-ripples.json')!.toString()).hash
})
afterAll(async () => {
  await close()
  rmSync(folder, { recursive: true, force: true })
})

describe('an archive', () => {
  it('holds the workshop and nothing that opens it', () => {
    expect([...good.keys()].filter(n => !n.includes('/')).sort()).toEqual([
      'library.jsonl',
      'logbook.csv',
      'meshes.jsonl',
      'nine-ripples.json',
      'people.jsonl',
      'photos.jsonl',
      'plans.jsonl',
      'pours.jsonl',
      'views.jsonl',
      'workshop.json',
    ])
    const all = [...good.values()].map(b => b.toString('latin1')).join('')
    for (const secret of ['saltmarsh.invalid', '$scrypt$', 'password', 'Exif']) expect(all).not.toContain(secret)
    expect(good.get('people.jsonl')!.toString()).toContain('Marl Quillhouse')
  })

  it('restores identically on an empty database: the same hash, the same lists, the same counts', async () => {
    const other = await empty()
    const restored = await bring(other.db, other.workshop, path)
    expect(restored).toMatchObject({ pours: 19, photos: 3, models: 3, plans: 4 })
    expect(JSON.parse((await contents(await save(other.db, other.workshop))).get('nine-ripples.json')!.toString()).hash)
      .toBe(hash)
    // Entries are numbered anew.
    const told = async (of: Scope) => (await pourRows(of)).map(({ id, summary }) => ({ id, summary }))
    expect(await told(other.scope)).toEqual(await told(scope))
    const order = (rows: Awaited<ReturnType<typeof castRows>>) =>
      [...rows].sort((a, b) => a.pour + a.cast.id < b.pour + b.cast.id ? -1 : 1)
    expect(order(await castRows(other.scope, 0))).toEqual(order(await castRows(scope, 0)))
    expect(await talliesOfWorkshop(other.scope)).toEqual(await talliesOfWorkshop(scope))
    // And goes on from there.
    const { id } = (await pourRows(other.scope))[0]!
    expect(
      (await recordEvents(other.scope, id, [{
        id: randomUUID(),
        kind: 'note',
        data: { text: 'Here again' },
        version: 1,
        happenedAt: NOW,
        recordedAt: NOW,
        device: 'd',
        deviceSeq: 1,
      }], 'x'))!.events.length,
    ).toBeGreaterThan(3)
    await expect(bring(other.db, other.workshop, path)).rejects.toThrow(/empty workshop/)
    await other.close()
  })

  it('comes back the same whatever was written in the workshop', async () => {
    const text = fc.string({ unit: 'binary', minLength: 1, maxLength: 30 }).filter(t =>
      t.trim().length > 0 && !t.includes('\0'),
    ).map(t => t.trim()).filter(t => t.length > 0 && t.length <= 80)
    const note = fc.record({
      text,
      at: fc.integer({ min: 0, max: 1e9 }),
      skew: fc.integer({ min: -1e6, max: 1e6 }),
      gone: fc.boolean(),
    })
    await fc.assert(
      fc.asyncProperty(
        fc.array(note, { minLength: 1, maxLength: 8 }),
        fc.array(text, { maxLength: 4 }),
        async (notes, names) => {
          const one = await empty(),
            [bag] = await scope.select('library_item').select('body').where('kind', '=', 'bag').execute(),
            { run } = await scope.select('pour').select('run').executeTakeFirstOrThrow()
          for (const name of names)
            await one.scope.insert('library_item', [{
              id: randomUUID(),
              kind: 'bag',
              body: JSON.stringify({ ...bag!.body, name }),
              archived_at: name.length % 2 ? new Date(NOW) : null,
            }]).execute()
          const pour = randomUUID()
          const event = (n: typeof notes[number], i: number): SentEvent => ({
            id: randomUUID(),
            kind: 'note',
            data: { text: n.text },
            version: 1,
            happenedAt: NOW + n.at,
            recordedAt: NOW + n.at,
            device: 'd',
            deviceSeq: i,
          })
          await startPour(one.scope, {
            id: pour,
            run: { ...run, plan: { ...run.plan, name: names[0] ?? '' } },
            first: [event(notes[0]!, 0)],
            actor: 'someone',
          })
          const events = notes.map(event)
          await recordEvents(
            one.scope,
            pour,
            [
              ...events,
              ...notes.flatMap((n, i): SentEvent[] =>
                n.gone
                  ? [{
                      id: randomUUID(),
                      kind: 'undo',
                      data: { event: events[i]!.id },
                      version: 1,
                      happenedAt: NOW + 2e9,
                      recordedAt: NOW + 2e9,
                      device: 'd',
                      deviceSeq: 100 + i,
                    }]
                  : [],
              ),
            ],
            'someone',
            notes[0]!.skew,
          )
          const two = await empty(), saved = await save(one.db, one.workshop)
          await bring(two.db, two.workshop, saved)
          const hashOf = async (p: string) =>
            JSON.parse((await contents(p)).get('nine-ripples.json')!.toString()).hash as string
          expect(await hashOf(await save(two.db, two.workshop))).toBe(await hashOf(saved))
          expect(await pourRows(two.scope)).toEqual(await pourRows(one.scope))
          await one.close()
          await two.close()
        },
      ),
      { numRuns: 6 },
    )
  })
})

describe('a download that is broken off', () => {
  it('lets go of its snapshot: no transaction stays open', async () => {
    const open = async () =>
      (await sql<
        { n: number }
      >`select count(*)::int as n from pg_stat_activity where datname = current_database() and xact_start is not null and pid <> pg_backend_pid()`
        .execute(db)).rows[0]!.n
    const stream = archiveOf(db, scope.workshopId)
    await once(stream, 'readable')
    expect(await open()).toBe(1)
    stream.destroy()
    await expect.poll(open).toBe(0)
  })

  it('also before it began: more of them than there are connections leave some for others', async () => {
    for (let i = 0; i < 12; i++) archiveOf(db, scope.workshopId).destroy()
    expect((await pourRows(scope)).length).toBe(19)
  })

  it('and a database that goes away in the middle ends the download, not the server', async () => {
    const stream = archiveOf(db, scope.workshopId),
      ended = new Promise<void>(done => stream.on('error', () => {}).on('close', done))
    await once(stream, 'readable')
    await sql`select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and xact_start is not null and pid <> pg_backend_pid()`
      .execute(db)
    stream.resume()
    await ended
    expect(stream.readableEnded).toBe(false)
    expect((await pourRows(scope)).length).toBe(19)
  })
})

describe('what is no archive, or a trap, is refused whole with a sentence', () => {
  let other: Awaited<ReturnType<typeof empty>>
  beforeAll(async () => {
    other = await empty()
  })
  afterAll(() => other.close())
  const lines = (name: string) => good.get(name)!.toString().trimEnd().split('\n')
  async function refused(at: string, words: RegExp) {
    const error: unknown = await bring(other.db, other.workshop, at).then(
      () => 'it was taken in',
      e => e,
    )
    expect(error).toBeInstanceOf(ArchiveRefused)
    expect((error as Error).message).toMatch(words)
    for (
      const table of ['library_item', 'plan', 'pour', 'pour_event', 'photo', 'mesh', 'tally', 'logbook_view'] as const
    )
      expect(await other.scope.select(table).select(eb => eb.fn.countAll().as('n')).executeTakeFirst()).toEqual({
        n: 0,
      })
    expect(await other.scope.select('person').select('name').execute()).toEqual([{ name: 'O' }])
  }
  const bytes = () => readFileSync(path)
  const written = (data: Uint8Array) => {
    const at = file()
    writeFileSync(at, data)
    return at
  }

  it('half a file, another file, a file with a byte changed', async () => {
    await refused(written(bytes().subarray(0, bytes().length / 2)), /not a whole archive/)
    await refused(written(Buffer.from('a picture of a cat')), /not a whole archive/)
    const bent = Buffer.from(bytes())
    bent[Math.floor(bent.length / 3)]! ^= 0x55
    await refused(written(bent), /not a whole archive|not as it was written|cannot be/)
  })

  it('paths that lead elsewhere, names that do not belong, a name twice', async () => {
    for (const name of ['photos/../../etc/passwd', '/etc/passwd', 'notes.txt', 'photos\\..\\x.jpg']) {
      const zip = new yazl.ZipFile(), at = file()
      const stand = 'x'.repeat(name.length)
      for (const [n, b] of good) zip.addBuffer(b, n)
      zip.addBuffer(Buffer.from('x'), stand)
      zip.end()
      await pipeline(zip.outputStream, createWriteStream(at))
      writeFileSync(at, Buffer.from(readFileSync(at).toString('latin1').replaceAll(stand, name), 'latin1'))
      await refused(at, /no archive of a workshop has|not a whole archive/)
    }
  })

  it('a bomb, by what it says of itself and by what comes out', async () => {
    await refused(await forged(good, { 'pours.jsonl': Buffer.alloc(120e6) }), /far more than a workshop holds/)
  })

  it('a newer format, a manifest that does not fit, files missing or too many', async () => {
    await refused(await forged(good, {}, { version: 2 }), /newer Nine Ripples/)
    await refused(await forged(good, {}, { hash: 'f'.repeat(64) }), /not a whole archive/)
    await refused(await forged(good, { 'plans.jsonl': undefined }), /not a whole archive/)
    await refused(await forged(good, { [`photos/${randomUUID()}.jpg`]: JPEG }), /belong to nothing/)
  })

  it('things that cannot be: a pour of no batches, an entry of another pour’s cast, a photo that is none, what belongs to nothing', async () => {
    const pour = JSON.parse(lines('pours.jsonl')[0]!)
    await refused(
      await forged(good, { 'pours.jsonl': `${JSON.stringify({ ...pour, run: { ...pour.run, batches: [] } })}\n` }),
      /Line 1 of “pours.jsonl”/,
    )
    await refused(
      await forged(good, {
        'pours.jsonl': `${
          JSON.stringify({ ...pour, events: [{ ...pour.events[0], kind: 'opened', data: { cast: '99.1' } }] })
        }\n`,
      }),
      /no cast 99.1/,
    )
    await refused(
      await forged(good, {
        'pours.jsonl': `${JSON.stringify({ ...pour, events: [{ ...pour.events[0], kind: 'exploded', data: {} }] })}\n`,
      }),
      /cannot be/,
    )
    await refused(
      await forged(good, { 'library.jsonl': `${lines('library.jsonl')[0]!.replace(/"name":"[^"]*"/, '"name":""')}\n` }),
      /cannot be/,
    )
    const photo = [...good.keys()].find(n => n.startsWith('photos/'))!
    await refused(await forged(good, { [photo]: Buffer.from('no picture') }), /photo/)
    await refused(await forged(good, { 'library.jsonl': '' }), /belongs to what is not in it/)
    await refused(await forged(good, { 'pours.jsonl': '{"id": ' }), /not a whole archive|cannot be read/)
  })

  it('lists longer than any can be, by what is said of them: nothing of them is unpacked', async () => {
    await refused(await forged(good, { 'people.jsonl': Buffer.alloc(25e6, '{"name":"x"}\n') }), /“people.jsonl” in this archive is larger/)
    const names = Object.fromEntries(Array.from({ length: 2000 }, (_, i) => [`${i}`.padStart(100, 'x'), 'f'.repeat(64)]))
    await refused(await forged(good, {}, { more: names }), /“nine-ripples.json” in this archive is larger/)
    const heavy = Object.fromEntries(Array.from({ length: 3 }, () => [`photos/${randomUUID()}.jpg`, randomBytes(950_000)]))
    await refused(await forged(good, heavy), /larger than anything of its kind/)
  })

  it('lines that nest without end, that no database holds, a thing twice', async () => {
    const deep = `{"id":"${randomUUID()}","kind":"bag","revision":1,"body":${'['.repeat(5000)}${']'.repeat(5000)}}\n`
    await refused(await forged(good, { 'library.jsonl': deep }), /Line 1 of “library.jsonl” in this archive is nested deeper/)
    const person = (name: string) => `{"id":"${randomUUID()}","name":"${name}"}\n`
    for (const name of ['a\\u0000b', 'a\\ud800b'])
      await refused(await forged(good, { 'people.jsonl': person(name) }), /Line 1 of “people.jsonl” in this archive cannot be read/)
    const [plan] = lines('plans.jsonl')
    await refused(await forged(good, { 'plans.jsonl': `${plan}\n${plan}\n` }), /the same thing twice/)
    await refused(await forged(good, { 'people.jsonl': person('x'.repeat(3000)) }), /line of “people.jsonl” in this archive is longer/)
  })

  it('but not because its server has the same already', async () => {
    const here
      = (await createWithOwner(db, { name: 'Beside', units: METRIC, clock: REAL_TIME, demo: false }, {
        name: 'B',
        email: 'beside@example.org',
        passwordHash: 'x',
      })).workshopId
    // Every key carries its workshop: a copy beside the first is one of its own, whose people sign in nowhere.
    const before = await within(db, here).select('person').select('id').execute()
    expect((await bring(db, here, path)).pours).toBeGreaterThan(0)
    const people = await within(db, here).select('person').select(['id', 'account_id', 'archived_at']).execute()
    const names = people.filter(p => !before.some(b => b.id === p.id))
    expect(names.length).toBeGreaterThan(0)
    expect(names.every(p => p.account_id === null && p.archived_at !== null)).toBe(true)
  })

  it('a place written in a photo is left out even when the archive has it', async () => {
    const photo = [...good.keys()].find(n => n.startsWith('photos/'))!
    const third = await empty()
    await bring(third.db, third.workshop, await forged(good, { [photo]: JPEG }))
    const { data } = await third.scope.select('photo').select('data').executeTakeFirstOrThrow()
    expect(data.includes('Exif')).toBe(false)
    await third.close()
  })

  it('a thing of another workshop of the same server is not in it, though the server has it', async () => {
    const [own] = await scope.select('library_item').select('id').where('kind', '=', 'mould').execute(),
      here
        = (await createWithOwner(db, { name: 'Third', units: METRIC, clock: REAL_TIME, demo: false }, {
          name: 'T',
          email: 'third@example.org',
          passwordHash: 'x',
        })).workshopId
    const photo = lines('photos.jsonl')[0]!,
      none = {
        'people.jsonl': '',
        'library.jsonl': '',
        'plans.jsonl': '',
        'pours.jsonl': '',
        'views.jsonl': '',
        'meshes.jsonl': '',
      }
    const [others, meshes] = ['photos/', 'meshes/'].map(f =>
      [...good.keys()].filter(n => n.startsWith(f) && !n.includes(JSON.parse(photo).id)),
    ) as [string[], string[]]
    const gone = Object.fromEntries([...others, ...meshes].map(n => [n, undefined])),
      borrowed = { ...JSON.parse(photo), id: randomUUID(), of: { mould: own!.id } }
    const at = await forged(good, {
      ...none,
      ...gone,
      [`photos/${JSON.parse(photo).id}.jpg`]: undefined,
      [`photos/${borrowed.id}.jpg`]: JPEG,
      'photos.jsonl': `${JSON.stringify(borrowed)}\n`,
    })
    await expect(bring(db, here, at)).rejects.toThrow(/belongs to what is not in it/)
  })

  it('reading it needs no more than a line at a time', async () => {
    const archive = await openArchive(path)
    let pours = 0
    for await (const line of archive.lines('pours.jsonl')) pours += line.events.length > 0 ? 1 : 0
    archive.close()
    expect(pours).toBe(19)
  })
})
