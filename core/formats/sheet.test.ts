import { describe, expect, it } from 'vitest'
import { chance } from '~demo/random'
import { BAGS, BUCKETS, makeIds, MOULDS, planOf, WISHES, type WishKey } from '~demo/saltmarsh'
import { METRIC, US_CUSTOMARY } from '../units/units'
import { freezeRun } from '../plan/run'
import type { Plan } from '../plan/types'
import { benchSheet } from './sheet'

const ids = makeIds(chance(1))
const listed = <T extends object>(bodies: Record<string, T>, keys: Record<string, string>) =>
  Object.entries(bodies).map(([k, b]) => ({ id: keys[k]!, ...b }))
const run = (wish: WishKey, change: Partial<Plan> = {}) => {
  const plan = { ...planOf(ids, WISHES[wish]), ...change },
    moulds = listed(MOULDS, ids.moulds).filter(m => plan.fills.some(f => f.mould === m.id))
  const frozen = freezeRun(plan, {
    moulds,
    bucket: listed(BUCKETS, ids.buckets).find(b => b.id === plan.bucket),
    bag: listed(BAGS, ids.bags).find(b => b.id === plan.bag),
  })
  if (!frozen.ok) throw new Error(frozen.problems[0]?.code)
  return frozen.run
}

describe('the bench sheet', () => {
  it('says what is weighed, batch by batch, alike ones once, and in the workshop’s units', () => {
    const lanterns = run('lanterns'), sheet = benchSheet(lanterns, METRIC)
    expect(sheet.facts[0]).toBe('Gypsum cement, bag 14, 45 water to 100 powder by weight')
    expect(sheet.batches).toHaveLength(1)
    expect(sheet.batches[0]!.title).toBe('Buckets 1 and 2, each: 3 × Lantern base')
    // The bucket is drawn with the heights that stand in the rows.
    const { bucket, moulds } = sheet.batches[0]!.picture!
    expect(bucket!.lines.map(l => l.words)).toEqual(sheet.batches[0]!.amounts.filter(([w]) =>
      w === 'water line in the bucket' || w === 'after the powder').map(([, words]) => words))
    expect(moulds.map(m => m.form)).toEqual([MOULDS.lantern.form])
    const grams = (x: number) => Math.round(1000 * x)
    expect(sheet.batches[0]!.amounts.find(([w]) => w === 'powder')![1].replace(/\D/g, '')).toBe(
      String(grams(lanterns.batches[0]!.mix.powder)),
    )
    expect(benchSheet(lanterns, US_CUSTOMARY).batches[0]!.amounts[0]![1]).toMatch(/lb|oz/)
  })

  it('follows its way of measuring: scoops are counted, a bag has no sifting', () => {
    expect(benchSheet(run('evening'), METRIC).batches[0]!.amounts.find(([w]) => w === 'powder')![1]).toMatch(
      /level scoops/,
    )
    expect(benchSheet(run('towpath'), METRIC).steps.map(s => s.instruction)).not.toContain('Sift the powder in')
    expect(benchSheet(run('tiles'), METRIC).steps.find(s => s.instruction === 'Let it soak')!.until).toMatch(
      /^until \d+ min/,
    )
  })

  it('by feel the powder comes first, more water than it should need is in the jug, and what is left has its blank', () => {
    const { amounts } = benchSheet(run('tiles'), METRIC).batches[0]!, water = amounts.find(([w]) => w === 'water')![1]
    const felt = benchSheet(run('tiles', { school: 'powder-first' }), METRIC)
    expect(felt.batches[0]!.amounts.map(([w]) => w).slice(0, 3)).toEqual(['powder', 'water in the jug', 'of it at first'])
    const grams = (words: string) => Number(/^[\d\s.]+/.exec(words)![0].replace(/\s/g, ''))
    expect(grams(felt.batches[0]!.amounts[1]![1]) / grams(water)).toBeCloseTo(1.1, 2)
    expect(felt.blanks.slice(0, 2)).toEqual(['powder weighed', 'left in the jug'])
  })

  it('what is added and what is dipped stand with how they go in', () => {
    const amounts = benchSheet(run('tiles', {
      additions: [{ id: 'dry-pigment', share: 0.02, way: 'fold' }, { id: 'salt', share: 0.01 }],
      coats: { way: 'backed', shares: [0.3, 0.7], cloth: { kind: 'long-fibre', coat: 2, width: 0.2, length: 0.2, layers: 1 } },
    }), METRIC).batches.map(b => b.amounts.map(([w]) => w))
    expect(amounts[0]).toEqual(expect.arrayContaining(['table salt, into the water', 'dry pigment, folded in last']))
    expect(amounts.map(a => a.includes('long fibre, teased out, dipped'))).toEqual([false, true])
  })

  it('never leaves the cautions out', () => {
    expect(benchSheet(run('ferns'), METRIC).cautions[0]).toMatch(/Never set plaster around a hand/)
  })
})
