import { describe, expect, it } from 'vitest'
import { followOrder, type OrderPour } from './following'
import type { Round } from './round'
import { sumOf } from './round'
import { planRound, searchPlans } from './search'

const LINES = [{ mould: 'tile', copies: 3 }, { mould: 'heart', copies: 6 }]
const unitOf = (at: number) => at / 20_000, at = { unitOf, cleaning: 6 }
type Cast = OrderPour['casts'][number]
const cast = (mould: string, status: Cast['status'], more: Partial<Cast> = {}): Cast =>
  ({ mould, status, waste: false, ...more })
const pour = (casts: readonly Cast[], more: Partial<OrderPour> = {}): OrderPour =>
  ({ casts, filledBy: 100_000, opensFrom: 2_000_000, inHand: false, ...more })

describe('an order that is under way', () => {
  it('counts what is out, in moulds and broken; another shape is none of it', () => {
    const found = followOrder(LINES, [
      pour([
        cast('tile', 'judged'), cast('tile', 'finished', { waste: true }), cast('heart', 'opened'), cast('cup', 'opened'),
      ]),
      pour([cast('tile', 'setting', { openFrom: 1_000_000 }), cast('heart', 'waiting')], { inHand: true }),
    ], at)
    expect(found).toMatchObject({ out: [1, 1], broken: [1, 0], inMoulds: [1, 1], inHand: 1, begun: true })
    expect(found.standing).toEqual({
      from: 0, moulds: [{ shape: 0, copy: 0, set: 50 }, { shape: 1, copy: 0, set: 100 }], buckets: [11], persons: [5],
    })
    const none = followOrder(LINES, [], at)
    expect(none).toMatchObject({ begun: false, out: [0, 0], standing: { moulds: [], persons: [] } })
  })
  it('moments that are over are now; more in moulds than there are moulds hold back no more than there are', () => {
    const casts = [1, 2, 3, 4].map(() => cast('tile', 'setting', { openFrom: -5 }))
    const past = pour(casts, { filledBy: -9, inHand: true })
    const { inMoulds, standing } = followOrder(LINES, [past], at)
    expect(inMoulds).toEqual([4, 0])
    expect(standing.moulds.map(m => [m.copy, m.set])).toEqual([[0, 0], [1, 0], [2, 0]])
    expect([standing.buckets, standing.persons]).toEqual([[6], [0]])
  })
  it('the rest is planned around it: what stands is opened after its set, before its mould is filled again', () => {
    const round: Round = {
      horizon: 400, persons: [[[0, 400]]], buckets: 1, bucketVolume: 3, tables: 1, setFrom: 'wet', goal: 'soonest',
      shapes: [{ id: 'tile', pieces: 7, copies: 3, volume: 1, fill: 1, set: 40, open: 2, shelf: 1 }],
      mixing: () => ({ weigh: 1, sift: 2, soak: 2, soakMax: 4, stir: 2, clean: 2, pourBy: 20 }),
    }
    const shut = [cast('tile', 'setting', { openFrom: 30 * 20_000 }), cast('tile', 'setting', { openFrom: 30 * 20_000 })]
    const { standing } = followOrder([LINES[0]!], [pour(shut)], at)
    const { table } = planRound(round, { standing, tries: 200 })
    expect([table.missing, sumOf(table.opened), sumOf(table.mixings.flatMap(m => m.counts))]).toEqual([0, 7, 5])
    for (const copy of [0, 1]) {
      const open = table.tasks.find(t => t.kind === 'open' && t.mix === -1 && t.copy === copy)!
      expect(open.from).toBeGreaterThanOrEqual(30)
      const again = table.mixings.flatMap(m => m.moulds).filter(f => f.copy === copy).map(f => f.from)
      expect(Math.min(...again)).toBeGreaterThanOrEqual(open.to)
    }
    // A broken one is wanted again: one piece more, and it ends no sooner.
    const more = planRound({ ...round, shapes: [{ ...round.shapes[0]!, pieces: 8 }] }, { standing, tries: 200 })
    expect([more.table.missing, more.table.end >= table.end]).toEqual([0, true])
  })
  it('a plan made before is mended first: what was begun falls away, what broke is made again, the rest stays as it was', () => {
    const shape = (id: string, pieces: number) =>
      ({ id, pieces, copies: 3, volume: 1, fill: 1, set: 40, open: 2, shelf: 1 })
    const round: Round = {
      horizon: 2000, persons: [[[0, 2000]]], buckets: 1, bucketVolume: 4, tables: 1, setFrom: 'wet', goal: 'soonest',
      shapes: [shape('tile', 14), shape('heart', 11)],
      mixing: () => ({ weigh: 1, sift: 2, soak: 2, soakMax: 4, stir: 2, clean: 2, pourBy: 20 }),
    }
    const plan = planRound(round, { tries: 300 }), [first] = plan.table.mixings, from = first!.filled + 15
    const moulds = first!.moulds.map(({ shape: s, copy, set }) => ({ shape: s, copy, set: set + 10 }))
    const standing = { from, moulds, buckets: [from], persons: [] }
    const mended = searchPlans(round, 1, { standing, before: plan.list }).next().value
    expect([mended.table.missing, sumOf(mended.table.opened)]).toEqual([0, 25])
    expect(mended.list.map(w => w.counts)).toEqual(plan.list.slice(1).map(w => w.counts))
    expect(Math.min(...mended.table.tasks.map(t => t.from))).toBeGreaterThanOrEqual(from)
    const broken = { ...round, shapes: round.shapes.map((s, i) => ({ ...s, pieces: s.pieces + (i === 0 ? 1 : 0) })) }
    const again = searchPlans(broken, 1, { standing, before: plan.list }).next().value
    expect([again.table.missing, sumOf(again.table.opened)]).toEqual([0, 26])
    // Of other shapes it is no help, and better plans than the mended one are still looked for.
    const other = { ...round, shapes: [round.shapes[0]!] }
    expect(planRound(other, { before: plan.list, tries: 20 }).table.missing).toBe(0)
    const better = planRound(round, { standing, before: plan.list, tries: 300 }).table.end
    expect(better).toBeLessThanOrEqual(mended.table.end)
  })
})
