import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { planSchema } from '../../contract/plan'
import { PLACES, SKIES, WINDS } from '../../core/drying/places'
import { ADDITIONS } from '../../core/gypsum/additions'
import { END_USES } from '../../core/gypsum/end-use'
import { POWDER_CLASSES } from '../../core/gypsum/powders'
import { SCHOOLS } from '../../core/gypsum/schools'
import { STIR_PACES, STIR_TOOLS } from '../../core/gypsum/stirring'
import { COAT_WAYS } from '../../core/plan/batches/coats'
import { BUBBLE_WAYS } from '../../core/plan/bubbles'
import { pourLate } from '../../core/plan/late'
import { workOutPlan } from '../../core/plan/plan'
import { freezeRun } from '../../core/plan/run'
import type { MouldFacts, Plan } from '../../core/plan/types'
import { MOULD_MATERIALS, SETTING_PLACES, type MouldMaterial } from '../../core/setting/body'
import { forecast } from '../../core/setting/moments'

/** Whatever the fields accept: every class, mould, place and addition, drawn together to their limits. */
const id = (n: number) => `00000000-0000-4000-8000-00000000000${n}`
const oneOf = <T extends string>(table: Readonly<Record<T, unknown>>) => fc.constantFrom(...Object.keys(table) as T[])
const ofIds = <T extends string>(list: readonly { readonly id: T }[]) => fc.constantFrom(...list.map(x => x.id))
const between = (min: number, max: number) => fc.double({ min, max, noNaN: true })
const maybe = <T>(one: fc.Arbitrary<T>) => fc.option(one, { nil: undefined })

const mould: fc.Arbitrary<MouldFacts> = fc.record({
  material: oneOf<MouldMaterial>(MOULD_MATERIALS), litres: between(0.002, 40), section: between(0.001, 0.5),
  wall: between(0.0005, 0.5), fragile: fc.boolean(), width: between(0.005, 2),
}).map(({ material, litres, section, wall, fragile, width }) => ({
  id: id(1), name: 'Any', material, section, wall, fragile, mouth: { shape: 'round', width, length: width },
  volume: { value: litres / 1000, low: litres / 1100, high: litres / 900 },
}))
const standing = fc.record({
  place: ofIds(PLACES),
  air: fc.record({ celsius: between(-20, 50), humidity: between(0.02, 1) }),
  weather: maybe(fc.record({
    swing: between(0, 20), wind: fc.constantFrom(...WINDS), sky: fc.constantFrom(...SKIES), latitude: between(-70, 70),
  })),
})
const coats = ofIds(COAT_WAYS).chain(way => fc.record({
  way: fc.constant(way), shares: fc.array(between(0, 1), { minLength: 1, maxLength: 8 }), wall: maybe(between(0, 0.2)),
}))
const plan = fc.record({
  name: fc.constant('Any'), endUse: ofIds(END_USES), count: fc.integer({ min: 1, max: 40 }),
  classId: ofIds(POWDER_CLASSES),
  school: ofIds(SCHOOLS), ratio: between(0.05, 3),
  waterTemperature: between(-20, 110), roomTemperature: between(-30, 60),
  losses: between(0, 1), soakMinutes: between(0, 60), bubbles: maybe(oneOf(BUBBLE_WAYS)),
  hands: maybe(fc.constantFrom(1 as const, 2 as const)), groundTemperature: maybe(between(-30, 60)),
  stir: fc.record({ tool: oneOf(STIR_TOOLS), minutes: between(0, 60), pace: maybe(oneOf(STIR_PACES)) }),
  scoop: fc.record({
    volume: between(1e-5, 0.05), filling: fc.constantFrom('loose' as const, 'tapped' as const),
    perWater: between(0.25, 10),
  }),
  additions: fc.array(fc.record({ id: ofIds(ADDITIONS), share: between(0, 2) }), { maxLength: 3 }),
  sets: maybe(fc.record({
    place: ofIds(SETTING_PLACES), humidity: between(0.02, 1), sky: maybe(fc.constantFrom(...SKIES)),
  })),
  dries: maybe(standing), coats: maybe(coats),
  known: fc.record({
    what: fc.constantFrom('moulds' as const, 'powder' as const, 'water' as const), amount: between(0, 100),
  }),
}).map(({ count, ...rest }): Plan => ({ ...rest, fills: [{ mould: id(1), count }], bucket: id(2) }))
/** Half of the drawings lie where people work, so that not all of them are refused. */
const usual = (p: Plan): Plan => {
  const { ratio } = POWDER_CLASSES.find(c => c.id === p.classId)!
  const coated = p.coats && { ...p.coats, shares: p.coats.shares.map(() => 1 / (2 * p.coats!.shares.length)) }
  return {
    ...p, ratio: ratio.low + (ratio.high - ratio.low) * p.ratio / 3, known: { what: 'moulds', amount: 0 }, coats: coated,
    waterTemperature: 5 + (p.waterTemperature + 20) / 4, roomTemperature: 2 + (p.roomTemperature + 30) / 3,
    fills: [{ mould: id(1), count: 1 + p.fills[0]!.count % 4 }], losses: p.losses / 5, soakMinutes: p.soakMinutes / 15,
    stir: { ...p.stir, minutes: p.stir.minutes / 15 }, additions: p.additions.map(a => ({ ...a, share: a.share / 20 })),
  }
}

/** Every number in something, with the way to it. */
function* numbers(of: unknown, way = ''): Generator<readonly [string, number]> {
  if (typeof of === 'number') yield [way, of]
  else if (of && typeof of === 'object')
    for (const [key, value] of Object.entries(of)) yield* numbers(value, `${way}.${key}`)
}
/** Temperatures may be below nothing, and the logarithm of a rate. */
const MAY_BE_NEGATIVE = /[tT]emperature|celsius|latitude|\.world\.|bagRate|\.plan\./
function expectSane(of: unknown, forever: RegExp = /^$/): void {
  for (const [way, n] of numbers(of)) {
    if (Number.isNaN(n)) expect.fail(`${way} is no number`)
    if (!Number.isFinite(n) && !forever.test(way)) expect.fail(`${way} is ${n}`)
    if (n < 0 && !MAY_BE_NEGATIVE.test(way)) expect.fail(`${way} is ${n}`)
  }
}

describe('no figure is without number, without end or below nothing', () => {
  const bucket = { id: id(2), name: 'Tub', vessel: { bottom: 0.5, top: 0.6, height: 0.6 } }
  const drawn = fc.tuple(plan, mould, fc.boolean()).map(([p, m, far]) => ({ p: far ? p : usual(p), m }))
  it('in a plan, its problems and its batches, whatever the fields accept', () => {
    let worked = 0
    fc.assert(fc.property(drawn, ({ p, m }) => {
      const read = planSchema.safeParse(p)
      expect(read.success, JSON.stringify(read.error?.issues[0])).toBe(true)
      const result = workOutPlan(p, { moulds: [m], bucket })
      const { setting, ...rest } = result
      expectSane(rest)
      // A centre that is not reached within twelve hours is said as such.
      if (setting) {
        worked++
        expectSane({ centre: setting.centre }, /centre\./)
      }
    }), { numRuns: 300, seed: 17 })
    expect(worked).toBeGreaterThan(60)
  }, 120_000)
  it('in a frozen run, its ranges and its dates, and in what is said of being late', () => {
    let frozen = 0
    fc.assert(fc.property(drawn, ({ p, m }) => {
      const world = { moulds: [m], bucket }, made = freezeRun(usual(p), world)
      if (!made.ok) return
      frozen++
      expectSane({ ...made.run, plan: undefined, world: undefined })
      const { setting } = workOutPlan(usual(p), world)
      const late = pourLate(usual(p), world, forecast(setting!.input, 20).moments.pourBy)
      expectSane(late)
    }), { numRuns: 40, seed: 18 })
    expect(frozen).toBeGreaterThan(8)
  }, 240_000)
})
