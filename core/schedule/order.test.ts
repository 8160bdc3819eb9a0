import { describe, expect, it } from 'vitest'
import type { MouldFacts, Plan, PlanWorld } from '../plan/types'
import { boundRound } from './bounds'
import { layOutDay } from './day'
import { bestOf, whatHelps } from './help'
import { roundOf, UNIT, type Order, type Ordered } from './order'
import { sumOf } from './round'
import { planByRule } from './rules'
import { planRound } from './search'
import { findBreaches } from './verify'

const tile: MouldFacts = {
  id: 'tile', name: 'Garden tile', material: 'silicone', volume: { value: 190e-6, low: 185e-6, high: 195e-6 },
  mouth: { shape: 'rectangular', width: 0.1, length: 0.1 }, wall: 0.008, section: 0.018, fragile: false,
}
const block: MouldFacts = {
  ...tile, id: 'block', name: 'Block', material: 'wood', volume: { value: 7e-4, low: 7e-4, high: 7e-4 },
}
const world: PlanWorld = {
  moulds: [tile, block], bucket: { id: 'pail', name: 'Pail', vessel: { bottom: 0.2, top: 0.26, height: 0.26 } },
}
const recipe: Plan = {
  name: 'Tiles', endUse: 'painted', fills: [], classId: 'casting-plaster', school: 'weighed', ratio: 0.66,
  scoop: { volume: 2.5e-4, filling: 'loose', perWater: 2 }, waterTemperature: 18, roomTemperature: 20, bucket: 'pail',
  losses: 0.06, soakMinutes: 2, stir: { tool: 'hand', minutes: 2 }, additions: [], known: { what: 'moulds', amount: 0 },
}
const HOUR = 3600 / UNIT, DAY = 24 * HOUR
const nineToFive = Array.from({ length: 4 }, (_, d) => [d * DAY + 9 * HOUR, d * DAY + 17 * HOUR] as const)
const order: Order = {
  recipe, lines: [{ mould: 'tile', pieces: 40, copies: 3 }], persons: [nineToFive], due: 3 * DAY, horizon: 4 * DAY,
  buckets: 2, tables: 1, goal: 'soonest', opening: 150, finishing: 20,
}
function made(part: Partial<Order> = {}, in_ = world): Ordered {
  const answer = roundOf({ ...order, ...part }, in_)
  if (!('round' in answer)) throw new Error(JSON.stringify(answer))
  return answer
}

describe('an order', () => {
  it('becomes a round in the product’s own times', () => {
    const { round, powderEach, opensFrom } = made({ lines: [...order.lines, { mould: 'block', pieces: 4, copies: 1 }] })
    const [small, large] = round.shapes, one = round.mixing([1, 0]), many = round.mixing([3, 1])
    expect(small!.volume).toBeCloseTo(190e-6 * 1.06, 9)
    expect(powderEach[0]! / powderEach[1]!).toBeCloseTo(190 / 700, 6)
    // A rigid mould is opened later than one that flexes; more powder is sifted for longer.
    expect(opensFrom[1]!).toBeGreaterThan(opensFrom[0]!)
    expect(large!.set).toBe(Math.ceil(opensFrom[1]! / UNIT - 1e-9))
    expect(many.sift).toBeGreaterThan(one.sift)
    expect([one.soak * UNIT, one.stir * UNIT, small!.open * UNIT]).toEqual([120, 120, 160])
    expect(one.soakMax).toBeGreaterThanOrEqual(one.soak)
    expect(one.finishBy).toBeGreaterThan(one.pourBy)
  })

  it('of forty from three moulds is planned over its days, and nights let the moulds set', () => {
    const { round } = made(), { table } = planRound(round, { tries: 20 })
    expect([table.missing, table.late, findBreaches(round, table)]).toEqual([0, 0, []])
    expect(sumOf(table.mixings.map(m => m.counts[0]!))).toBe(40)
    expect(table.end).toBeGreaterThan(DAY)
    const day = (unit: number) => Math.floor(unit / DAY), filled = table.mixings.flatMap(m => m.moulds)
    expect(filled.filter(f => day(f.to) < day(f.opened!)).length).toBeGreaterThan(0)
    const least = planRound({ ...round, goal: 'least work' }, { tries: 20 }).table
    expect(least.mixings.length).toBe(14)
    expect(least.mixings.length).toBeLessThan(table.mixings.length + 1)
    expect(boundRound(round).end).toBeLessThanOrEqual(table.end)
  })

  it('says what stands in the way instead of planning', () => {
    const codes = (part: Partial<Order>, in_ = world) => {
      const answer = roundOf({ ...order, ...part }, in_)
      return 'round' in answer ? 'planned' : answer.map(p => p.code === 'plan' ? p.problem.code : p.code)
    }
    expect(codes({ lines: [] })).toEqual(['no-lines'])
    expect(codes({ persons: [[], []] })).toEqual(['no-hours'])
    expect(codes({ lines: [{ mould: 'gone', pieces: 1, copies: 1 }] })).toEqual(['mould-gone'])
    expect(codes({}, { ...world, bucket: undefined })).toEqual(['no-bucket'])
    expect(codes({ recipe: { ...recipe, soakMinutes: 40 } })).toEqual(['pours-too-late'])
  })

  it('that cannot be met is told what would help, from the plan there is', () => {
    const { round } = made({ due: 14 * HOUR, horizon: DAY }), plan = planRound(round, { tries: 40 })
    expect(plan.table.missing + plan.table.late).toBeGreaterThan(0)
    const helps = [...whatHelps(round, plan, { least: 45, more: 90 })].filter(h => h !== undefined)
    const best = bestOf(helps)
    expect(best[0]).toMatchObject({ code: 'copy', shape: 0 })
    expect(helps.every(h => h.pieces > 0 || h.sooner >= 45)).toBe(true)
    expect(best.length).toBeLessThanOrEqual(3)
  })

  it('is laid out by rows, in which nothing overlaps and each mould is filled before it sets', () => {
    const { round } = made(), { table } = planByRule(round)
    const rows = layOutDay(table, { persons: 1, copies: [3], buckets: 2 }, 0, DAY)
    expect(rows.map(r => r.of)).toEqual(['person', 'mould', 'mould', 'mould', 'bucket', 'bucket'])
    for (const { blocks } of rows) {
      const inOrder = [...blocks].sort((a, b) => a.from - b.from)
      expect(inOrder.every((b, i) => i === 0 || inOrder[i - 1]!.to <= b.from)).toBe(true)
      expect(blocks.every(b => b.from >= 0 && b.to <= DAY && b.to > b.from)).toBe(true)
    }
    expect(rows[1]!.blocks.slice(0, 3).map(b => b.what)).toEqual(['fill', 'set', 'open'])
  })
})
