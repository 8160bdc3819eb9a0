import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { importSchema } from '../../contract/import'
import { seedDemo } from '../../demo/seed'
import { findPours, talliesOfWorkshop, trials } from '../../server/store/logbook'
import { libraryItems } from '../../server/store/library'
import type { Db } from '../../server/store/open'
import { castRows, pourRows } from '../../server/store/pours'
import { within, type Scope } from '../../server/store/scope'
import { importRows } from '../../server/imports/rows'
import { begun } from './bringing'
import { freshDatabase } from './fresh'

let db: Db, close: () => Promise<void>, scope: Scope, tile: string, bag: string
const NOW = Date.UTC(2026, 10, 20, 12)
beforeAll(async () => {
  ({ db, close } = await freshDatabase())
  await seedDemo(db, NOW)
  scope = within(db, (await db.selectFrom('workshop').select('id').executeTakeFirstOrThrow()).id)
  tile = (await libraryItems(scope, 'mould')).find(m => m.body.name === 'Garden tile')!.id
  bag = (await libraryItems(scope, 'bag')).find(b => b.body.name.startsWith('Gypsum cement'))!.id
})
afterAll(() => close())
const take = async (table: { kind: 'pours' | 'moulds' | 'bags', rows: object[] }) =>
  importRows(await begun(db, scope.workshopId, table.kind), importSchema.parse(table), 'someone', NOW)

describe('rows of a table', () => {
  it('of pours become pours of that day: results and costs count, times of day do not', async () => {
    const before = await talliesOfWorkshop(scope), shelf = (await castRows(scope, NOW)).length
    await take({
      kind: 'pours',
      rows: [
        {
          date: '2024-05-03',
          mould: tile,
          pieces: 12,
          bag,
          classId: 'gypsum-cement',
          water: 3.3,
          powder: 8,
          good: 9,
          second: 1,
          waste: 2,
          defects: ['crack'],
          note: 'From the old book',
        },
        { date: '2024-06-03', mould: tile, pieces: 2, classId: 'pottery-plaster', defects: [], note: '' },
      ],
    })
    const { rows } = await findPours(scope, { find: 'garden tile', facts: [], to: '2024-12' })
    expect(
      rows.map(
        r => [
          new Date(r.summary.startedAt!).toISOString().slice(0, 10),
          r.summary.status,
          r.summary.verdicts,
          r.summary.ratio.actual,
        ],
      ),
    ).toEqual([
      ['2024-06-03', 'finished', { good: 0, second: 0, waste: 0 }, undefined],
      ['2024-05-03', 'finished', { good: 9, second: 1, waste: 2 }, expect.closeTo(0.4125, 6)],
    ])
    expect(rows[1]!.summary.defects).toEqual(['crack'])
    expect(rows[1]!.summary.glyph.every(m => m.actual === undefined)).toBe(true)
    expect(rows[1]!.summary.powderUsed).toBeCloseTo(8, 9)
    const now = await talliesOfWorkshop(scope), of = (t: typeof now) => t.moulds.find(m => m.key === tile)!.counts
    expect(of(now).casts - of(before).casts).toBe(14)
    expect(of(now).waste - of(before).waste).toBe(2)
    expect((await castRows(scope, NOW)).length).toBe(shelf)
    expect((await trials(scope, [`mould:${tile}`])).every(t => t.at > Date.UTC(2026, 0) || t.did.open === undefined))
      .toBe(true)
    expect((await findPours(scope, { find: 'old book', facts: ['defect:crack'] })).count).toBe(1)
  })

  it('of moulds and bags become such, with what is not told left to be measured', async () => {
    await take({ kind: 'moulds', rows: [{ name: 'Frog', volume: 0.0004, material: 'latex', life: 30, note: '' }] })
    await take({ kind: 'bags', rows: [{ name: 'Bag 20', classId: 'casting-plaster', left: 20, price: 0.8, note: '' }] })
    const frog = (await libraryItems(scope, 'mould')).find(m => m.body.name === 'Frog')!.body
    expect(frog.volume).toEqual({ value: 0.0004, low: 0.00038, high: 0.00042 })
    expect(frog.mouth.width).toBeCloseTo(0.081, 3)
    expect((await libraryItems(scope, 'bag')).find(b => b.body.name === 'Bag 20')!.body).toMatchObject({
      left: 20,
      leftAt: NOW,
    })
  })

  it('go in all together or not at all, and the row that cannot is named', async () => {
    const before = (await pourRows(scope)).length
    const refused = await take({
      kind: 'pours',
      rows: [{ date: '2024-05-03', mould: tile, pieces: 1, classId: 'casting-plaster', defects: [], note: '' }, {
        date: '2024-05-03',
        mould: bag,
        pieces: 1,
        classId: 'casting-plaster',
        defects: [],
        note: '',
      }],
    }).then(() => undefined, (e: unknown) => e)
    expect(refused).toMatchObject({ code: 'row', field: 'rows.1', status: 422 })
    expect((await pourRows(scope)).length).toBe(before)
    expect(
      importSchema.safeParse({
        kind: 'pours',
        rows: [{
          date: '2024-05-03',
          mould: tile,
          pieces: 1,
          classId: 'casting-plaster',
          good: 2,
          defects: [],
          note: '',
        }],
      }).success,
    ).toBe(false)
    expect(importSchema.safeParse({ kind: 'moulds', rows: [] }).error?.issues[0]?.message).toBe(
      'There is no row to take in.',
    )
  })
})
