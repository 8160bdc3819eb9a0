import { randomUUID } from 'node:crypto'
import { createWriteStream, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { METRIC } from '../../core/units/units'
import { REAL_TIME } from '../../contract/clock'
import { importSchema, type ImportRows } from '../../contract/import'
import { seedDemo } from '../../demo/seed'
import { archiveOf } from '../../server/archive/write'
import { carryOut } from '../../server/imports/work'
import { askToEnd, beginImport, beginTakingOut, importOf, importsOf, tellImport } from '../../server/store/imports'
import { libraryItems, saveItem } from '../../server/store/library'
import { talliesOfWorkshop } from '../../server/store/logbook'
import type { Db } from '../../server/store/open'
import { keepPhoto } from '../../server/store/photos'
import { pourRows } from '../../server/store/pours'
import { recordEvents } from '../../server/store/recording'
import { within, type Scope } from '../../server/store/scope'
import { createWithOwner } from '../../server/store/workshops'
import { freshDatabase } from './fresh'

/** What is brought in from a file, given up half way, broken off, and taken out again. */
const NOW = Date.UTC(2026, 10, 20, 12), folder = mkdtempSync(join(tmpdir(), 'ripples-imports-test-'))
let db: Db, close: () => Promise<void>, demo: Scope, path: string, by: string
beforeAll(async () => {
  ({ db, close } = await freshDatabase())
  await seedDemo(db, NOW)
  demo = within(db, (await db.selectFrom('workshop').select('id').executeTakeFirstOrThrow()).id)
  const bytes = await sharp({ create: { width: 9, height: 9, channels: 3, background: '#cba' } }).jpeg().toBuffer()
  for (const { id } of await libraryItems(demo, 'mould'))
    await keepPhoto(demo, randomUUID(), { mould: id }, '', { bytes, width: 9, height: 9 })
  path = join(folder, 'demo.zip')
  await pipeline(archiveOf(db, demo.workshopId), createWriteStream(path))
})
afterAll(async () => {
  await close()
  rmSync(folder, { recursive: true, force: true })
})

async function empty(): Promise<Scope> {
  const made = await createWithOwner(db, { name: 'New', units: METRIC, clock: REAL_TIME, demo: false }, {
    name: 'O', email: `${randomUUID()}@example.org`, passwordHash: 'x',
  })
  by = made.personId
  return within(db, made.workshopId)
}
type Work = Parameters<typeof carryOut>[1]['work']
async function doIt(scope: Scope, kind: 'archive' | ImportRows['kind'], work: Work, before = async (_: string) => {}) {
  const id = randomUUID()
  await beginImport(scope, { id, kind, name: 'a file', by })
  await before(id)
  await carryOut(db, { workshop: scope.workshopId, job: id, work })
  return (await importOf(scope, id))!
}
async function out(scope: Scope, id: string) {
  const { counts } = (await importOf(scope, id))!
  expect(await beginTakingOut(scope, id)).toBe(true)
  await carryOut(db, { workshop: scope.workshopId, job: id, work: { what: 'out', counts } })
  return (await importOf(scope, id))!
}
const TABLES = ['pour', 'pour_event', 'pour_projection', 'cast_projection', 'plan', 'library_item', 'photo', 'mesh',
  'logbook_view', 'import_thing'] as const
async function left(scope: Scope): Promise<Record<string, number>> {
  const counts = await Promise.all(TABLES.map(async t =>
    [t, (await scope.select(t).select(eb => eb.fn.countAll<number>().as('n')).executeTakeFirstOrThrow()).n] as const))
  return Object.fromEntries(counts.filter(([, n]) => n > 0))
}
const rows = (mould: string, n: number): Work => ({
  what: 'rows', actor: by, now: NOW,
  table: importSchema.parse({
    kind: 'pours',
    rows: Array.from({ length: n }, (_, i) => ({
      date: `2024-05-${String(1 + i % 28).padStart(2, '0')}`, mould, pieces: 2, classId: 'pottery-plaster', good: 1, waste: 1,
      defects: [], note: '',
    })),
  }),
})

describe('a file that is brought in', () => {
  it('an archive taken out again leaves nothing of it, and can be brought in anew', async () => {
    const scope = await empty(), job = await doIt(scope, 'archive', { what: 'archive', path })
    expect(job).toMatchObject({ state: 'done', counts: { pours: 19, plans: 4 } })
    expect(job.things).toBeGreaterThan(30)
    expect(await talliesOfWorkshop(scope)).toEqual(await talliesOfWorkshop(demo))
    expect(await out(scope, job.id)).toMatchObject({ state: 'taken-out', counts: { stayed: 0 }, things: 0 })
    expect(await left(scope)).toEqual({})
    expect(await scope.select('person').select('name').execute()).toEqual([{ name: 'O' }])
    const { months } = await talliesOfWorkshop(scope)
    expect(months).toEqual([])
    expect(await doIt(scope, 'archive', { what: 'archive', path })).toMatchObject({ state: 'done' })
  })

  it('given up between two lots: it says what is in, which is whole, and that goes out again', async () => {
    const scope = await empty()
    const mould = randomUUID()
    const { body } = (await libraryItems(demo, 'mould'))[0]!
    await saveItem(scope, 'mould', mould, body, 0)
    const wanted = db.selectFrom('pour').select('id').where('workshop_id', '=', scope.workshopId)
    // As soon as something is in, somebody gives it up.
    const giveUp = async (id: string) => {
      void (async () => {
        for (;;) {
          if ((await wanted.limit(1).execute()).length > 0) return askToEnd(scope, id)
          await new Promise(done => setImmediate(done))
        }
      })()
    }
    const job = await doIt(scope, 'pours', rows(mould, 1000), giveUp)
    expect(job.state).toBe('given-up')
    expect(job.counts.pours).toBeGreaterThan(0)
    expect(job.counts.pours).toBeLessThan(1000)
    expect(job.counts.pours % 50).toBe(0)
    expect((await pourRows(scope)).length).toBe(job.counts.pours)
    expect((await talliesOfWorkshop(scope)).moulds.find(m => m.key === mould)!.counts.casts).toBe(2 * job.counts.pours)
    expect(await out(scope, job.id)).toMatchObject({ state: 'taken-out', things: 0 })
    expect(await left(scope)).toEqual({ library_item: 1 })
  })

  it('what was used or changed since stays, and is counted', async () => {
    const scope = await empty(), job = await doIt(scope, 'archive', { what: 'archive', path })
    const [pour] = await pourRows(scope), run = await scope.select('pour').select('run').where('id', '=', pour!.id)
      .executeTakeFirstOrThrow()
    await recordEvents(scope, pour!.id, [{
      id: randomUUID(), kind: 'note', data: { text: 'Still here' }, version: 1, happenedAt: NOW, recordedAt: NOW,
      device: 'd', deviceSeq: 1,
    }], by)
    const bags = await libraryItems(scope, 'bag'), bag = bags.find(b => b.id !== run.run.world.bag?.id)!
    await saveItem(scope, 'bag', bag.id, { ...bag.body, name: 'Renamed' }, bag.revision)
    const after = await out(scope, job.id)
    expect((await pourRows(scope)).map(p => p.id)).toEqual([pour!.id])
    const kept = [...await libraryItems(scope, 'mould'), ...await libraryItems(scope, 'bag')].map(i => i.id)
    for (const { id } of run.run.world.moulds) expect(kept).toContain(id)
    expect(kept).toContain(bag.id)
    // Each mould that stays keeps its photo.
    const shown = await scope.select('photo').select('mould_id').execute()
    expect(shown.map(p => p.mould_id).sort()).toEqual((await libraryItems(scope, 'mould')).map(m => m.id).sort())
    expect(after.state).toBe('taken-out')
    expect(after.counts.stayed).toBeGreaterThanOrEqual(3)
    expect((await talliesOfWorkshop(scope)).months.reduce((n, t) => n + t.counts.pours, 0)).toBe(1)
  })

  it('a row that cannot be is named and nothing of the table is in; nobody brings two archives at once', async () => {
    const scope = await empty()
    expect(await doIt(scope, 'pours', rows(randomUUID(), 2))).toMatchObject({
      state: 'refused', fault: { field: 'rows.0' }, things: 0,
    })
    await beginImport(scope, { id: randomUUID(), kind: 'archive', name: '', by })
    await expect(beginImport(scope, { id: randomUUID(), kind: 'archive', name: '', by })).rejects.toMatchObject({
      code: 'imports-under-way', status: 409,
    })
  })

  it('one whose server is gone is told as broken off, and can be taken out', async () => {
    const scope = await empty(), id = randomUUID()
    await beginImport(scope, { id, kind: 'archive', name: 'w.zip', by })
    await tellImport(scope, id, { state: 'taking', share: 0.4 })
    expect(await beginTakingOut(scope, id)).toBe(false)
    await scope.update('import_job').set({ heard_at: new Date(Date.now() - 120_000) }).execute()
    expect(await importsOf(scope)).toMatchObject([{ id, state: 'broken', share: expect.closeTo(0.4, 6) as number }])
    expect(await out(scope, id)).toMatchObject({ state: 'taken-out' })
  })
})
