import { describe, expect, it } from 'vitest'
import { dryingOf, type Body, type Stay } from './cast'
import { constantWeight, forecastDrying, type DryingRecord } from './weighings'

const DAY = 86_400
const stays: readonly Stay[] = [{ place: 'rack', air: { celsius: 20, humidity: 0.5 }, from: 0 }]
const body: Body = { dryMass: 1.177, freeWater: 0.523, area: 0.06, half: 0.02 }
/** Standard normal numbers, the same each time. */
function normals(seed: number): () => number {
  let s = seed
  const u = () => {
    s = (s * 16_807) % 2_147_483_647
    return s / 2_147_483_647
  }
  return () => Math.sqrt(-2 * Math.log(u())) * Math.cos(2 * Math.PI * u())
}
/** A cast that dries in its own way, weighed on a scale that reads to the gram. */
function made(seed: number, weighings: number) {
  const z = normals(seed),
    size = Math.exp(0.05 * z()),
    true_ = dryingOf(
      { ...body, dryMass: body.dryMass * size, freeWater: body.freeWater * size * Math.exp(0.04 * z()) },
      stays,
      { speed: Math.exp(0.45 * z()), dryFace: Math.exp(0.4 * z()) },
    )
  const end = true_.reaches(0.05)
  const weighed = Array.from({ length: weighings }, (_, i) => {
    const at = 0.6 * end * (i + 0.2) / Math.max(1, weighings - 0.8), water = true_.water(at)
    return {
      at,
      mass: Math.round(1000 * (true_.body.dryMass + water + 0.01 * z() * (true_.body.freeWater - water)) + 0.3 * z())
        / 1000,
    }
  })
  return { true_, end, record: { body, stays, weighed, felt: [] } satisfies DryingRecord }
}

describe('two periods of drying', () => {
  it('water is never gained on a rack, never negative, and what left plus what stays is what was there', () => {
    const d = dryingOf(body, stays)
    let before = body.freeWater
    for (let t = 0; t < 30 * DAY; t += DAY / 4) {
      const w = d.water(t)
      expect(w).toBeLessThanOrEqual(before + 1e-12)
      expect(w).toBeGreaterThan(0)
      before = w
    }
    for (const share of [0.3, 0.1, 0.05, 0.01]) expect(d.water(d.reaches(share)) / body.dryMass).toBeCloseTo(share, 6)
  })

  it('moving it is the same as having stood in both places for that long; wrapped it keeps its water', () => {
    const half = dryingOf(body, [{ ...stays[0]!, from: 0 }, { ...stays[0]!, from: 2 * DAY }])
    expect(half.water(4 * DAY)).toBeCloseTo(dryingOf(body, stays).water(4 * DAY), 9)
    const wrapped = dryingOf(body, [stays[0]!, { place: 'damp', air: stays[0]!.air, from: DAY }])
    expect(wrapped.water(9 * DAY)).toBe(wrapped.water(DAY))
    expect(wrapped.reaches(0.05)).toBe(Infinity)
  })
})

describe('weighings', () => {
  it(
    'of 200 casts drawn from the prior: three weighings bring the dry date from a quarter off to under a twentieth, and ranges hold about eight of ten',
    () => {
      const run = (weighings: number) => {
        const errors: number[] = []
        let held = 0
        for (let seed = 1; seed <= 200; seed++) {
          const { record, end } = made(seed * 7919, weighings),
            { value, low, high } = forecastDrying(record).reaches(0.05)
          errors.push(Math.abs(Math.log(value / end)))
          if (low <= end && end <= high) held++
        }
        return { median: errors.sort((a, b) => a - b)[100]!, held: held / 200 }
      }
      const [none, three] = [run(0), run(3)]
      expect(none.median).toBeGreaterThan(0.2)
      expect(three.median).toBeLessThan(0.05)
      for (const { held } of [none, three]) {
        expect(held).toBeGreaterThan(0.72)
        expect(held).toBeLessThan(0.92)
      }
    },
    30_000,
  )

  it('one weighing at the start says that some was spilt: the recipe is not forced on it', () => {
    const f = forecastDrying({ body, stays, weighed: [{ at: 60, mass: 0.92 * 1.7 }], felt: [] })
    expect((f.centre.body.dryMass + f.centre.body.freeWater) / 1.7).toBeLessThan(0.945)
  })

  it('what is felt moves the date less than a weight does, and the right way', () => {
    const at = (felt: DryingRecord['felt']) => forecastDrying({ body, stays, weighed: [], felt }).reaches(0.05)
    const plain = at([]), cold = at([{ at: 6 * DAY, how: 'cold' }]), dry = at([{ at: 2 * DAY, how: 'dry' }])
    expect(cold.value).toBeGreaterThan(plain.value * 1.05)
    expect(dry.value).toBeLessThan(plain.value * 0.95)
    expect(cold.high - cold.low).toBeGreaterThan(0.3 * (plain.high - plain.low))
  })

  it('the last per cent ends no sooner than the front has drawn back', () => {
    const f = forecastDrying({ body, stays, weighed: [], felt: [] })
    expect(f.reaches(0.01).high).toBeGreaterThan(f.reaches(0.05).high)
  })
})

describe('constant weight', () => {
  const damp: readonly Stay[] = [{ place: 'board', air: { celsius: 6, humidity: 0.95 }, from: 0 }]
  const twice = (mass: number, lost: number, where: readonly Stay[]): DryingRecord => ({
    body,
    stays: where,
    weighed: [{ at: 9 * DAY, mass: mass + lost }, { at: 10 * DAY, mass }],
    felt: [],
  })
  const say = (record: DryingRecord) => constantWeight(record, forecastDrying(record))

  it('in cold damp air a cast full of water is steady, and is not called dry', () => {
    expect(say(twice(1.64, 0.0008, damp))).toMatchObject({
      steady: true,
      dry: false,
      code: 'full-of-water',
    })
  })
  it('near its dry weight it is dry; while it loses weight it is not; one weighing says nothing', () => {
    expect(say(twice(1.182, 0.0005, stays))).toMatchObject({ steady: true, dry: true })
    expect(say(twice(1.3, 0.02, stays))).toMatchObject({ steady: false, dry: false })
    expect(say({ ...twice(1.2, 0, stays), weighed: [{ at: DAY, mass: 1.2 }] })).toBeUndefined()
  })
})
