import { describe, expect, it } from 'vitest'
import type { Happening, PourEvent } from '../pour/events'
import { milestonesOf } from '../pour/milestones'
import { MODEL_VERSION } from '../setting/moments'
import { bagShift, learningInputs, observationsOf, taughtBag, withMoments } from './observations'
import { bagShiftWords } from './words'
import type { MouldFacts, Plan } from '../plan/types'
import { freezeRun } from '../plan/run'
import { summariseCasts, summarisePour } from '../pour/projection'
import { foldPour } from '../pour/fold'

const lantern: MouldFacts = {
  id: 'lantern',
  name: 'Lantern base',
  material: 'silicone',
  volume: { value: 412e-6, low: 400e-6, high: 424e-6 },
  mouth: { shape: 'round', width: 0.09, length: 0.09 },
  wall: 0.008,
  section: 0.03,
  fragile: false,
}
const slab: MouldFacts = { ...lantern, id: 'slab', name: 'Slab', material: 'plastic', section: 0.05 }
const plan: Plan = {
  name: 'Both',
  endUse: 'painted',
  fills: [{ mould: 'lantern', count: 1 }, { mould: 'slab', count: 1 }],
  classId: 'casting-plaster',
  school: 'weighed',
  ratio: 0.67,
  scoop: { volume: 2.5e-4, filling: 'loose', perWater: 2 },
  waterTemperature: 20,
  roomTemperature: 20,
  bucket: 'pail',
  losses: 0.06,
  soakMinutes: 2,
  stir: { tool: 'hand', minutes: 2 },
  additions: [],
  known: { what: 'moulds', amount: 0 },
}
const frozen = freezeRun(plan, {
  moulds: [lantern, slab],
  bucket: { id: 'pail', name: 'Pail', vessel: { bottom: 0.2, top: 0.24, height: 0.22 } },
  bag: { id: 'sack', name: 'Sack', classId: 'casting-plaster', uncertain: false },
})
if (!frozen.ok) throw new Error('refused')
const { run } = frozen
const T0 = 1_800_000_000_000
let made = 0
const event = (at: number, happening: Happening): PourEvent => ({
  ...happening,
  id: `o${++made}`,
  pour: 'p',
  batch: 0,
  version: 1,
  happenedAt: T0 + at * 1000,
  recordedAt: T0 + at * 1000,
  device: 'a',
  deviceSeq: made,
  actor: 'x',
})
const stage = (at: number, s: string) => event(at, { kind: 'stage', data: { stage: s as 'sift' } })
const mixed = [
  stage(-400, 'ready'),
  stage(-200, 'weigh'),
  event(-150, { kind: 'weighed', data: { what: 'water', mass: 0.5, how: 'scale' } }),
  event(-100, { kind: 'weighed', data: { what: 'powder', mass: 0.8, how: 'scale' } }),
  stage(0, 'sift'),
  stage(80, 'soak'),
  stage(230, 'stir'),
  stage(500, 'fill'),
  stage(560, 'clean-up'),
]

describe('what a pour in hand gives to its forecast', () => {
  it('signs that tell nothing of the time are left out; so is everything before it is wet', () => {
    const state = foldPour(run, [
      ...mixed,
      event(60, { kind: 'mark', data: { sign: 'islands' } }),
      event(900, { kind: 'mark', data: { sign: 'gloss-gone' } }),
      event(700, { kind: 'temperature', data: { celsius: 31, where: 'cast' } }),
      event(710, { kind: 'temperature', data: { celsius: 19, where: 'room' } }),
    ])
    expect(observationsOf(state, 0)).toEqual([{ what: 'temperature', at: 700, celsius: 31 }, {
      what: 'mark',
      sign: 'gloss-gone',
      at: 900,
    }])
    expect(observationsOf(foldPour(run, mixed.slice(0, 4)), 0)).toEqual([])
  })

  it('a cast that was looked over says whether it was hard when it was opened', () => {
    const judged = (
      cast: string,
      defects: ('soft' | 'broken-edge')[],
    ) => [
      event(3000, { kind: 'opened', data: { cast } }),
      event(3100, { kind: 'judged', data: { cast, verdict: 'good', defects, note: '' } }),
    ]
    expect(observationsOf(foldPour(run, [...mixed, ...judged('1.1', ['broken-edge'])]), 0)).toEqual([])
    const state = foldPour(run, [...mixed, ...judged('1.1', []), ...judged('1.2', ['soft'])])
    expect(observationsOf(state, 0)).toEqual([{ what: 'opened', at: 3000, hard: true }, {
      what: 'opened',
      at: 3000,
      hard: false,
    }])
  })

  it('uses what was weighed, how long it soaked and was stirred, and puts the mould that opens last first', () => {
    const kinds = learningInputs(run, foldPour(run, mixed), 0)
    expect(kinds.map(k => k.moulds)).toEqual([['slab'], ['lantern']])
    const { input } = kinds[0]!
    expect(input.ratio.value).toBeCloseTo(0.625, 9)
    expect(input.ratio.high / input.ratio.value).toBeCloseTo(Math.exp(1.2816 * 0.012), 4)
    expect([input.stirFrom, input.stir.minutes]).toEqual([230, 4.5])
    // Before that it is the plan.
    const planned = learningInputs(run, foldPour(run, mixed.slice(0, 5)), 0)[0]!.input
    expect(planned.stir.minutes).toBe(2)
  })

  it('a recorded forecast moves opening times of casts and of the chart, the last one standing, and is what the bag was taught', () => {
    const foreseen = (at: number, from: number, mean: number) =>
      event(at, { kind: 'foreseen', data: { open: { lantern: { from, to: from + 3000 } }, taught: { mean, sd: 0.1 } } })
    const state = foldPour(run, [...mixed, foreseen(900, 1500, 0.2), foreseen(1000, 1200, 0.3)])
    expect(state.casts.find(c => c.cast.mould.id === 'lantern')!.openFrom).toBe(T0 + 1_200_000)
    expect(state.casts.find(c => c.cast.mould.id === 'slab')!.openFrom).toBeCloseTo(
      T0 + run.moments.slab!.open.from * 1000,
      0,
    )
    expect(summarisePour(run, state)).toMatchObject({ bagId: 'sack', taught: [{ mean: 0.3, sd: 0.1 }] })
    expect(summariseCasts(run, state).find(c => c.mouldId === 'lantern')!.openTo).toBe(T0 + 4_200_000)
    expect(state.last?.kind).toBe('stage')
    const sooner = withMoments(run, {
      slab: { ...run.moments.slab!, glossGone: { ...run.moments.slab!.glossGone, value: 600 } },
    })
    expect(milestonesOf(sooner, state, 0).find(m => m.id === 'set')!.value).toBe(600)
  })

  it('what an earlier model read out of a pour counts as half as sure', () => {
    const bag = { id: 'sack', name: 'Sack', classId: 'casting-plaster' as const, uncertain: false }
    const now = { mean: 0.3, sd: 0.1, model: MODEL_VERSION }
    const before = { mean: 0.3, sd: 0.1 }, half = { ...now, sd: 0.2 }
    expect(taughtBag(bag, [before]).rate).toEqual(taughtBag(bag, [half]).rate)
    expect(taughtBag(bag, [{ ...before, model: 'layers-1' }]).rate!.mean).toBeLessThan(taughtBag(bag, [now]).rate!.mean)
  })

  it('what a bag was taught is said in times, not in rates', () => {
    const bag = { id: 'sack', name: 'Sack', classId: 'casting-plaster' as const, uncertain: false }
    expect(bagShift(taughtBag(bag, []))).toBeUndefined()
    // Many sure batches at 1.25 times the rate: a fifth less time.
    const sure = Array.from({ length: 8 }, () => ({ mean: Math.log(1.25), sd: 0.05, model: MODEL_VERSION }))
    expect(bagShiftWords(bagShift(taughtBag(bag, sure))!)).toBe('In 8 mixes it set about 20 % sooner than its class.')
    expect(bagShiftWords(bagShift(taughtBag(bag, [{ mean: 0.01, sd: 0.1 }]))!)).toBe('In 1 mix it set as its class does.')
  })
})
