import { describe, expect, it } from 'vitest'
import { cuesOf } from '../../core/bench/cues'
import { powderClass } from '../../core/gypsum/powders'
import { stirredAir, turnsOf } from '../../core/gypsum/stirring'
import { soakAdvice, stirAdvice } from '../../core/plan/choices'
import { pourLate } from '../../core/plan/late'
import { workOutPlan } from '../../core/plan/plan'
import { freezeRun, stepsOf } from '../../core/plan/run'
import type { MouldFacts, Plan } from '../../core/plan/types'
import { stepWords } from '../../core/plan/step-words'
import { lateWords, stirAdviceWords } from '../../core/plan/words'
import type { PourEvent } from '../../core/pour/events'
import { foldPour } from '../../core/pour/fold'
import { settingMoments } from '../../core/setting/hydration'
import { forecast } from '../../core/setting/moments'
import { METRIC } from '../../core/units/units'

/** What casters do and the model has to live with (common practice, no source). */
const hump: MouldFacts = {
  id: 'hump', name: 'Hump mould', material: 'plaster', volume: { value: 9e-3, low: 8.8e-3, high: 9.2e-3 },
  mouth: { shape: 'round', width: 0.4, length: 0.4 }, wall: 0.02, section: 0.08, fragile: false,
}
const world = { moulds: [hump], bucket: { id: 'tub', name: 'Tub', vessel: { bottom: 0.3, top: 0.4, height: 0.4 } } }
const plan: Plan = {
  name: 'Hump moulds', endUse: 'absorbent', fills: [{ mould: 'hump', count: 1 }], classId: 'pottery-plaster',
  school: 'weighed', ratio: 0.7, scoop: { volume: 2.5e-4, filling: 'loose', perWater: 2 }, waterTemperature: 14,
  roomTemperature: 16, bucket: 'tub', losses: 0, soakMinutes: 2, additions: [], known: { what: 'moulds', amount: 0 },
  stir: { tool: 'hand', minutes: 15, pace: 'gentle' },
}
const frozen = (p: Plan) => {
  const made = freezeRun(p, world)
  if (!made.ok) throw new Error(made.problems.map(x => x.code).join())
  return made.run
}
const told = (stage: 'sift' | 'fill', seconds: number): PourEvent => ({
  id: crypto.randomUUID(), pour: 'p', batch: 0, version: 3, happenedAt: 1.8e12 + seconds * 1000,
  recordedAt: 1.8e12 + seconds * 1000, device: 'd', deviceSeq: seconds, actor: 'a', kind: 'stage', data: { stage },
})

describe('stirring by hand', () => {
  it('has a pace: 10 to 15 turns a minute when it is gentle, a turn a second when it is brisk', () => {
    const turns = (pace?: 'gentle' | 'steady' | 'brisk') => turnsOf({ tool: 'hand', minutes: 1, pace })
    expect(turns('gentle')).toBeGreaterThanOrEqual(10)
    expect(turns('gentle')).toBeLessThanOrEqual(15)
    expect(turns()).toBe(turns('brisk'))
    expect(turnsOf({ tool: 'drill', minutes: 1, pace: 'gentle' })).toBe(turnsOf({ tool: 'drill', minutes: 1 }))
  })
  it('a large, cool pottery batch stirred gently for a quarter of an hour gets no warning, before or at the bench', () => {
    const { problems, setting, batches } = workOutPlan(plan, world)
    expect(batches[0]!.mix.powder).toBeGreaterThan(8)
    expect(problems).toEqual([])
    const late = pourLate(plan, world, forecast(setting!.input, 40).moments.pourBy)
    expect(late).toMatchObject({ warned: false, custom: true, remedies: [] })
    expect(lateWords(late!, METRIC)).toContain('by custom such a cool')
    const run = frozen(plan), ends = run.batches[0]!.steps.poured.value
    const calls = cuesOf(run, foldPour(run, [told('sift', 0)])).filter(c => c.kind === 'late' || c.kind === 'hurry')
    for (const c of calls) expect((c.at - 1.8e12) / 1000).toBeGreaterThan(ends)
    // The same stirred briskly has no custom to stand on.
    expect(pourLate({ ...plan, stir: { tool: 'hand', minutes: 15 } }, world, forecast(setting!.input, 40).moments.pourBy))
      .toMatchObject({ custom: false, warned: true })
  })
  it('a slow pottery batch in the sun at 35 degC is still liquid a quarter of an hour after pouring', () => {
    const sunny: Plan = {
      ...plan, roomTemperature: 35, waterTemperature: 20, stir: { tool: 'hand', minutes: 5, pace: 'gentle' },
      sets: { place: 'sky', humidity: 0.4, sky: 'sun' },
    }
    const { setting, batches } = workOutPlan(sunny, world), { input } = setting!
    const slow = settingMoments({ ...input, ratio: input.ratio.value }, { rate: 0.55, seeds: 1 })
    expect(slow.glossGone).toBeGreaterThan(batches[0]!.steps.poured.value + 15 * 60)
  })
})

describe('tools and ways', () => {
  it('dumped investment soaks three minutes and is stirred two, with no warning', () => {
    const powder = powderClass('investment-plaster')
    expect(soakAdvice('dumped', powder, 3)).toBe('dumped-investment')
    expect(soakAdvice('dumped', powderClass('plaster-of-paris'), 3)).toBe('dumped-long')
  })
  it('a drill says what it costs in minutes and air', () => {
    const { setting, ratio } = workOutPlan({ ...plan, stir: { tool: 'drill', minutes: 3 } }, world)
    const advice = stirAdvice({ tool: 'drill', minutes: 3 }, powderClass('pottery-plaster'), 12, { ...setting!.input, ratio: ratio.value })
    expect(advice.costs).toBeGreaterThan(30)
    expect(stirAdviceWords(advice)).toMatch(/costs .* of the time to pour, and half as much air again/)
    expect(stirredAir('drill', 0.02)).toBeCloseTo(0.03, 9)
  })
  it('tap, brush or table: bubbles, step and cue follow', () => {
    const runs = (['tap', 'brush', 'table'] as const).map(bubbles => frozen({ ...plan, bubbles }))
    const fill = runs.map(r => stepWords(stepsOf(r).find(s => s.stage === 'fill')!).detail)
    expect(fill[0]).toContain('tap')
    expect(fill[1]).toContain('Brush a thin coat')
    expect(fill[2]).toContain('Table on')
    const cues = runs.map(r => cuesOf(r, foldPour(r, [told('sift', 0)])).map(c => c.kind))
    expect(cues[0]).toContain('tap')
    expect(cues[1]!.filter(k => k === 'tap' || k === 'table')).toEqual([])
    expect(cues[2]).toContain('table')
    const bubble = (bubbles: Plan['bubbles']) => workOutPlan({ ...plan, stir: { tool: 'hand', minutes: 2 }, bubbles }, world).setting!.centre.bubble
    expect(bubble('brush')).toBeGreaterThan(bubble('tap'))
    expect(bubble('tap')).toBeGreaterThanOrEqual(bubble('table'))
  })
})
