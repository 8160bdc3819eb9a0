import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { stepWords } from '../step-words'
import { problemWords } from '../words'
import { castSection, castVolume, coatProblems, coatVolumes, coatWay, COAT_WAYS, type Coats } from './coats'
import { coatMoment } from '../../bench/coat-moment'
import { COAT_MOMENT_WORDS } from '../../bench/words'
import { dryingRecord } from '../../pour/drying'
import type { PourEvent } from '../../pour/events'
import { milestonesOf } from '../../pour/milestones'
import { clothNeeds } from './cloth'
import { overlapOf } from './overlap'
import { workOutPlan } from '../plan'
import type { MouldFacts, Plan, PlanWorld } from '../types'
import { castsOf, freezeRun, stepsOf, type FrozenRun } from '../run'
import { summarisePour } from '../../pour/projection'
import { foldPour } from '../../pour/fold'

const mask: MouldFacts = {
  id: 'mask',
  name: 'Mask',
  material: 'silicone',
  volume: { value: 1.2e-3, low: 1.1e-3, high: 1.3e-3 },
  mouth: { shape: 'round', width: 0.2, length: 0.2 },
  wall: 0.008,
  section: 0.02,
  fragile: false,
}
const world: PlanWorld = {
  moulds: [mask],
  bucket: { id: 'pail', name: 'Pail', vessel: { bottom: 0.2, top: 0.25, height: 0.25 } },
}
const plan: Plan = {
  name: 'Mask',
  endUse: 'painted',
  fills: [{ mould: 'mask', count: 2 }],
  classId: 'gypsum-cement',
  school: 'weighed',
  ratio: 0.42,
  scoop: { volume: 2.5e-4, filling: 'loose', perWater: 2 },
  waterTemperature: 18,
  roomTemperature: 20,
  bucket: 'pail',
  losses: 0.06,
  soakMinutes: 2,
  stir: { tool: 'hand', minutes: 2 },
  additions: [],
  known: { what: 'moulds', amount: 0 },
}
const shell: Coats = {
  way: 'shell',
  shares: [1, 1, 1],
  areas: [{ name: 'Front', width: 0.3, length: 0.2, thickness: [0.004, 0.005, 0.005] }, {
    name: 'Cheeks',
    width: 0.1,
    length: 0.2,
    thickness: [0.004, 0.005, 0.004],
  }],
}
function frozen(coats: Coats): FrozenRun {
  const result = freezeRun({ ...plan, coats }, world)
  if (!result.ok) throw new Error(result.problems.map(p => problemWords(p)).join())
  return result.run
}
const T0 = 1_800_000_000_000
let made = 0
const event = (at: number, e: object, batch = 0) =>
  ({
    ...e,
    id: `e${++made}`,
    pour: 'p',
    batch,
    version: 1,
    happenedAt: T0 + at * 1000,
    recordedAt: T0,
    device: 'd',
    deviceSeq: made,
    actor: 'a',
  }) as PourEvent
const stage = (at: number, s: string, batch = 0) => event(at, { kind: 'stage', data: { stage: s } }, batch)

describe('coats', () => {
  it('a thickness map says how much each coat takes: area times thickness, coat by coat', () => {
    const volumes = coatVolumes(shell, mask)
    expect(volumes[0]).toBeCloseTo(0.06 * 0.004 + 0.02 * 0.004, 12)
    expect(volumes[2]).toBeCloseTo(0.06 * 0.005 + 0.02 * 0.004, 12)
  })

  it('shares of any size add up to the whole', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.01, max: 50, noNaN: true }), { minLength: 2, maxLength: 8 }),
        fc.double({ min: 1e-5, max: 0.1, noNaN: true }),
        (shares, whole) => {
          expect(coatVolumes({ way: 'backed', shares }, { ...mask, volume: { value: whole } }).reduce((a, b) => a + b)).toBeCloseTo(whole, 9)
        },
      ),
    )
  })

  it.each([
    [{ way: 'backed', shares: [1] }, 'at least two'],
    [{ way: 'swilled', shares: [0.6, 0.6] }, 'more than the mould holds'],
    [{ ...shell, areas: [{ ...shell.areas![0]!, thickness: [0, 0, 0] }, shell.areas![1]!] }, 'gets nothing'],
    [
      { ...shell, areas: [{ ...shell.areas![0]!, thickness: [0.012, 0.012, 0.012] }, shell.areas![1]!] },
      'Even thickness',
    ],
    [
      { ...shell, areas: [{ ...shell.areas![0]!, thickness: [0.001, 0.006, 0.006] }, shell.areas![1]!] },
      'dries before it sets',
    ],
    [
      { ...shell, areas: [{ ...shell.areas![0]!, thickness: [0.025, 0.005] }, shell.areas![1]!] },
      'a thickness for every coat',
    ],
    [{ ...shell, way: 'swilled', areas: [{ ...shell.areas![0]!, radius: 0.012 }, shell.areas![1]!] }, 'fill it'],
  ] as [Coats, string][])('says what is wrong: %#', (coats, sentence) => {
    expect(coatProblems(coats).map(p => problemWords(p)).join(' ')).toContain(sentence)
  })

  it('over a bulge each coat takes more than the last, inside a hollow less, by the balls between', () => {
    const radius = 0.08, side = Math.sqrt(4 * Math.PI) * radius, t = 0.005
    const area = { name: 'Crown', width: side, length: side, thickness: [t, t, t], radius }
    const ball = (r: number) => 4 / 3 * Math.PI * r ** 3
    for (const k of [0, 1, 2]) {
      const around = ball(radius + (k + 1) * t) - ball(radius + k * t)
      const inside = ball(radius - k * t) - ball(radius - (k + 1) * t)
      expect(coatVolumes({ ...shell, areas: [area] }, mask)[k]).toBeCloseTo(around, 12)
      expect(coatVolumes({ ...shell, way: 'swilled', areas: [area] }, mask)[k]).toBeCloseTo(inside, 12)
    }
    // Filled up long before: no coat takes less than nothing.
    const full = { ...area, thickness: [radius, t] }
    expect(coatVolumes({ ...shell, way: 'swilled', areas: [full] }, mask)[1]).toBeCloseTo(0, 12)
  })

  it('every coat is a batch, the casts belong to the last, and are counted once', () => {
    const run = frozen(shell)
    expect(run.batches.map(b => b.coat)).toEqual([1, 2, 3].map(number => ({ number, of: 3 })))
    expect(run.batches[0]!.castVolume).toBeCloseTo(2 * coatVolumes(shell, mask)[0]!, 12)
    expect(castsOf(run).map(c => [c.id, c.label])).toEqual([['3.1', 'Mask 1'], ['3.2', 'Mask 2']])
    expect(summarisePour(run, foldPour(run, [])).moulds).toEqual([{ id: 'mask', name: 'Mask', count: 2 }])
    expect(stepsOf(run).filter(s => s.stage === 'fill').map(s => stepWords(s).instruction)).toEqual([
      'Lay the face coat',
      'Build coat 2 evenly',
      'Build coat 3 evenly',
    ])
    expect(milestonesOf(run, foldPour(run, []), 0).map(m => m.id)).toEqual(['sift', 'soak', 'stir', 'fill', 'set'])
  })

  it.each(COAT_WAYS.map(w => w.id))('%s can be poured as it is proposed', (way) => {
    const run = frozen({ way, shares: coatWay(way).shares })
    expect(run.batches).toHaveLength(coatWay(way).shares.length)
    // A hollow cast takes a part of what the mould holds, the others all of it.
    expect(run.batches.reduce((v, b) => v + b.castVolume, 0) / (2 * mask.volume.value)).toBeCloseTo(
      way === 'swilled' ? 0.38 : 1,
      9,
    )
  })

  it('coats around something share its thickness: each takes more than the one below it, and all of it together', () => {
    const gauges = [{
      how: 'shell' as const, area: 0.02, relief: 1, thickness: 0.02, layers: 3, body: { kind: 'dome' as const, across: 0.16 },
    }]
    const jacket = { ...mask, gauges, volume: { value: 4.9e-3, low: 4.4e-3, high: 5.4e-3 } }
    const each = coatVolumes({ way: 'shell', shares: [1, 1, 1] }, jacket)
    // Three of 20 mm over a dome of 80: 1.0221, 1.5247 and 2.1279 l (Steiner 1840).
    each.forEach((v, k) => expect(v / 4.9e-3).toBeCloseTo([1.0221, 1.5247, 2.1279][k]! / 4.6747, 3))
    expect(coatVolumes({ way: 'backed', shares: [1, 1] }, jacket)).toEqual([2.45e-3, 2.45e-3])
  })
  it('a coat that does not fit the bucket is refused with what to do', () => {
    const small = { ...world, bucket: { id: 'cup', name: 'Cup', vessel: { bottom: 0.08, top: 0.09, height: 0.1 } } }
    expect(problemWords(workOutPlan({ ...plan, coats: shell }, small).problems.find(p => p.severity === 'refuse')!))
      .toMatch(
        /largest coat .* Choose a larger bucket/,
      )
  })

  it('the next coat waits for the standing peak, bonds until the gloss goes, then has to be scored; marks move both ends', () => {
    const run = frozen(shell), { pourBy, glossGone } = run.moments.mask!
    const laid = [stage(0, 'sift'), stage(100, 'soak'), stage(220, 'stir'), stage(340, 'fill'), stage(420, 'clean-up')]
    const at = (seconds: number, more: PourEvent[] = []) =>
      coatMoment(run, foldPour(run, [...laid, ...more]), 1, T0 + seconds * 1000)!
    expect(at(430).state).toBe('early')
    expect(at(pourBy.value + 5).state).toBe('now')
    expect(at(glossGone.low + 5)).toMatchObject({ state: 'late' })
    expect(COAT_MOMENT_WORDS.late).toContain('Score it')
    expect((at(0).from - at(0).mixAt) / 1000).toBeCloseTo(run.batches[1]!.steps.stirred.value, 6)
    const stiff = event(500, { kind: 'mark', data: { sign: 'will-not-pour' } }),
      dull = event(900, { kind: 'mark', data: { sign: 'gloss-gone' } })
    expect([at(520, [stiff]).state, at(520, [stiff]).from]).toEqual(['now', T0 + 500_000])
    expect(at(920, [dull]).state).toBe('late')
    // What counts is when it was begun to be laid, and once it is on there is nothing left to say.
    const begun = [stage(600, 'sift', 1), stage(800, 'fill', 1)]
    expect(coatMoment(run, foldPour(run, [...laid, stiff, ...begun]), 1, T0 + 9e6)!.state).toBe('now')
    expect(coatMoment(run, foldPour(run, [...laid, ...begun, stage(900, 'clean-up', 1)]), 1, T0 + 9e6)).toBeUndefined()
    expect(coatMoment(run, foldPour(run, laid), 0, T0)).toBeUndefined()
  })
})

describe('what a cast in coats comes to', () => {
  it('a shell is as large and as thick as its map says, a hollow one as the wall that its share makes, one that is backed all of it', () => {
    expect(castVolume({ coats: shell }, mask)).toBeCloseTo(0.06 * 0.014 + 0.02 * 0.013, 12)
    expect(castSection({ coats: shell }, mask)).toBeCloseTo(0.014, 12)
    expect(
      [
        castVolume({ coats: { way: 'swilled', shares: [0.2, 0.1] } }, mask),
        castSection({ coats: { way: 'swilled', shares: [0.2, 0.1] } }, mask),
      ].map((x, i) => x / [mask.volume.value, mask.section][i]!),
    ).toEqual([expect.closeTo(0.3, 9), expect.closeTo(1.5 * (1 - Math.cbrt(0.7)), 9)])
    expect([
      castVolume({ coats: { way: 'backed', shares: [1, 3] } }, mask),
      castVolume({}, mask),
      castSection({}, mask),
    ]).toEqual([expect.closeTo(mask.volume.value, 12), mask.volume.value, mask.section])
  })

  it('dries and weighs as what was laid, not as the mould poured solid', () => {
    const run = frozen(shell), opened = [stage(0, 'sift', 2), event(8000, { kind: 'opened', data: { cast: '3.1' } })]
    const state = foldPour(run, opened), { body } = dryingRecord(run, state, state.casts[0]!)!
    const mix = run.batches[0]!.mix
    expect(
      (body.dryMass + body.freeWater)
      / ((mix.dryMass + mix.freeWater) / mix.slurry * castVolume({ coats: shell }, mask)),
    ).toBeCloseTo(1, 2)
    expect(body.half).toBeCloseTo(0.007, 12)
  })
})

describe('cloth dipped into a coat', () => {
  const cloth = { kind: 'open-weave', coat: 2, width: 0.4, length: 0.5, layers: 2, strip: { width: 0.1, length: 0.4 } } as const
  const backed = { way: 'backed', shares: [0.25, 0.75] } as const

  it('is cut with laps, by strips that reach, and drinks by its area', () => {
    // 0.4 m x 0.5 m twice and a quarter for laps are 0.5 m2 a cast: 12.5 strips of 0.04 m2.
    const one = clothNeeds(cloth, 1), three = clothNeeds(cloth, 3)
    expect([one.area, one.strips, one.drinks.value]).toEqual([expect.closeTo(0.5, 9), 13, expect.closeTo(0.45e-3, 9)])
    expect(three).toMatchObject({ strips: 39, area: expect.closeTo(1.5, 9) as number })
    expect(three.drinks.low).toBeLessThan(three.drinks.value)
    expect(three.drinks.value).toBeLessThan(three.drinks.high)
    expect(clothNeeds({ ...cloth, kind: 'long-fibre' }, 1).strips).toBeUndefined()
  })

  it('what it drinks is mixed with its coat, and with no other', () => {
    const worked = (coats: Coats) => workOutPlan({ ...plan, coats }, world).batches
    const bare = worked(backed), laid = worked({ ...backed, cloth })
    const casts = bare[0]!.fills.reduce((n, f) => n + f.copies, 0), drinks = clothNeeds(cloth, casts).drinks.value
    expect(laid[0]!.castVolume).toBeCloseTo(bare[0]!.castVolume, 12)
    expect(laid[1]!.castVolume - bare[1]!.castVolume).toBeCloseTo(drinks, 12)
  })

  it('is refused at the face, in a coat that is not there, and over nothing', () => {
    const codes = (change: object) => coatProblems({ ...backed, cloth: { ...cloth, ...change } }).map(p => p.code)
    expect([codes({ coat: 1 }), codes({ coat: 3 }), codes({ width: 0 }), codes({})]).toEqual([
      ['cloth-at-face'], ['cloth-at-face'], ['bare-cloth'], [],
    ])
  })
})

describe('batches that overlap', () => {
  const two: PlanWorld = {
    ...world,
    bucket: { id: 'bowl', name: 'Bowl', vessel: { bottom: 0.14, top: 0.17, height: 0.12 } },
  }
  const overlap = (change: Partial<Plan>, hands: 1 | 2) => {
    const p = { ...plan, ...change }, { batches, ratio } = workOutPlan(p, two)
    expect(batches.length).toBeGreaterThan(1)
    return { batches, answer: overlapOf(p, two, ratio, batches, 0, hands) }
  }

  it('a school that does not soak leaves one person nothing to do beside it', () => {
    expect(overlap({ school: 'powder-first' }, 1).answer).toEqual({ hands: 1, why: 'no-soak' })
  })

  it('alone only when sifting fits into the soak: hands are never in two buckets', () => {
    expect(overlap({ soakMinutes: 1 }, 1).answer).toMatchObject({
      why: 'soak-too-short',
    })
    const { answer, batches } = overlap({ soakMinutes: 8 }, 1)
    if (!('siftAt' in answer)) throw new Error(answer.why)
    const one = batches[0]!.steps
    expect(answer.siftAt).toBeGreaterThanOrEqual(one.sifted.value)
    expect(answer.siftAt + batches[1]!.steps.sifted.value).toBeLessThanOrEqual(one.soaked.value)
    expect(answer.saves).toBeGreaterThan(60)
  })

  it('two people mix beside each other and pour one after the other', () => {
    const { answer, batches } = overlap({ soakMinutes: 2 }, 2)
    if (!('siftAt' in answer)) throw new Error(answer.why)
    expect(answer.siftAt + batches[1]!.steps.stirred.value).toBeGreaterThanOrEqual(batches[0]!.steps.poured.value)
  })

  it('not when it would thicken while it waits, and never for coats', () => {
    const fast = overlap({ classId: 'plaster-of-paris', ratio: 0.6, waterTemperature: 35, soakMinutes: 12 }, 1).answer
    expect(fast).toHaveProperty('why')
    expect(overlapOf({ ...plan, coats: shell }, world, workOutPlan(plan, world).ratio, frozen(shell).batches, 0, 2))
      .toHaveProperty('why')
  })
})
