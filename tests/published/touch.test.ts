import { describe, expect, it } from 'vitest'
import { powderClass } from '../../core/gypsum/powders'
import { momentsInput } from '../../core/plan/moments-input'
import { workOutPlan } from '../../core/plan/plan'
import type { MouldFacts, Plan } from '../../core/plan/types'
import { settingMoments } from '../../core/setting/hydration'
import { settingMix, type SettingInput } from '../../core/setting/setting-mix'
import { forecast } from '../../core/setting/moments'
import { coolBelow, warmToTouch } from '../../core/setting/touch'
import { coolThrough, courseOf } from '../course'

/** Warm and cool as a hand feels them, on the outside (customs: common practice, no source). */
const cast = (more: Partial<SettingInput>): SettingInput => ({
  powder: powderClass('plaster-of-paris'), ratio: 0.7, waterTemperature: 20, roomTemperature: 20, additions: [],
  stir: { tool: 'hand', minutes: 2 }, stirFrom: 120, section: 0.025, mould: 'plastic', ...more,
})
const minutes = (more: Partial<SettingInput>) => settingMoments(cast(more)).coolAgain / 60

describe('cool again', () => {
  it('custom has a 10 mm plate cool in about half an hour: half an hour is within its range', () => {
    const input = cast({ section: 0.01 })
    const ratio = { value: 0.7, low: 0.68, high: 0.72, basis: { kind: 'model' as const, note: '' } }
    const known = { ...input, ratio, bagUncertain: false, openNotBefore: 0, fragile: false }
    const { coolAgain } = forecast(known, 60).moments
    expect(coolAgain.low / 60).toBeLessThan(32)
    expect(coolAgain.value / 60).toBeLessThan(45)
  })
  it('custom has pottery moulds and blocks of a hand’s breadth cool in a couple of hours, and warm within for hours', () => {
    for (const more of [{ section: 0.07, mould: 'plaster' }, { section: 0.05, across: [0.05, 0.05], shape: 'closed-slab' }] as const) {
      expect(minutes(more)).toBeGreaterThan(80)
      expect(minutes(more)).toBeLessThan(150)
    }
    expect(coolThrough(cast({ section: 0.07, mould: 'plaster' })) / 60).toBeGreaterThan(240)
  })
  it('is at most 10 K above the air and at least 2, three fifths of the way to a hand between, and there for any air', () => {
    expect(coolBelow(20, 45)).toBeCloseTo(27.8, 9)
    expect(coolBelow(5, 45)).toBe(15)
    expect(coolBelow(35, 55)).toBe(37)
    // One that was hardly ever warm is cool at half of it, one that never was at once.
    expect(coolBelow(20, 26)).toBe(23)
    expect(coolBelow(20, 18)).toBe(20)
    for (const air of [2, 10, 20, 30, 40]) expect(Number.isFinite(minutes({ roomTemperature: air }))).toBe(true)
  })
  it('a cold mix in a warm room that never gets warmer than it is set when it is cool', () => {
    const m = settingMoments(cast({ section: 0.004, waterTemperature: 4, roomTemperature: 38, humidity: 0.1 }))
    expect(m.coolAgain).toBeGreaterThanOrEqual(m.finalSet)
    expect(m.coolAgain).toBeLessThan(4 * 3600)
  })
})

describe('warm', () => {
  it('is felt after the gloss goes and before it is warmest, on a face sooner than through a mould', () => {
    const open = cast({}), closed = cast({ shape: 'closed-slab', mould: 'silicone' })
    const felt = (input: SettingInput) => warmToTouch(courseOf(input), 20)!, m = settingMoments(open)
    expect(felt(open)).toBeGreaterThan(0.8 * m.glossGone)
    expect(felt(open)).toBeLessThan(m.warmest)
    expect(felt(closed)).toBeGreaterThan(felt(open))
  })
  it('water that warms to the room is not it', () => {
    const m = courseOf(cast({ waterTemperature: 5 })), felt = warmToTouch(m, 20)!
    expect(m.find(s => s.t >= felt)!.outside).toBeGreaterThanOrEqual(20)
    expect(warmToTouch([], 20)).toBeUndefined()
  })
})

describe('corners in the cold', () => {
  const cold = (across?: readonly [number, number]) => settingMoments(cast({
    section: 0.05, waterTemperature: 10, roomTemperature: 5, mould: 'metal', shape: 'closed-slab', behind: 'wind', across,
  }))
  it('are strong later: a bar 3 % and a cube 6 % against a slab, worked out once as 3.4 and 6.9 %', () => {
    const [slab, bar, cube] = [cold(), cold([0.05, 50]), cold([0.05, 0.05])]
    expect(bar.finalSet / slab.finalSet).toBeGreaterThan(1.02)
    expect(bar.finalSet / slab.finalSet).toBeLessThan(1.06)
    expect(cube.finalSet / slab.finalSet).toBeGreaterThan(1.04)
    expect(cube.finalSet / slab.finalSet).toBeLessThan(1.11)
    expect(cube.openFlexible).toBeGreaterThan(slab.openFlexible)
  })
})

describe('the bucket takes up heat', () => {
  const tile: MouldFacts = {
    id: 'tile', name: 'Tile', material: 'silicone', volume: { value: 4e-4, low: 3.9e-4, high: 4.1e-4 }, wall: 0.01,
    mouth: { shape: 'rectangular', width: 0.1, length: 0.2 }, section: 0.02, fragile: false,
  }
  const world = { moulds: [tile], bucket: { id: 'pail', name: 'Pail', vessel: { bottom: 0.2, top: 0.25, height: 0.25 } } }
  const plan: Plan = {
    name: 'Tiles', endUse: 'painted', fills: [{ mould: 'tile', count: 3 }], classId: 'plaster-of-paris', school: 'weighed',
    ratio: 0.7, scoop: { volume: 2.5e-4, filling: 'loose', perWater: 2 }, waterTemperature: 5, roomTemperature: 21,
    bucket: 'pail', losses: 0, soakMinutes: 2, stir: { tool: 'hand', minutes: 2 }, additions: [],
    known: { what: 'moulds', amount: 0 },
  }
  it('cold water in a pail at 21 degC begins half a kelvin warmer than by powder and water alone', () => {
    const { setting, ratio, batches } = workOutPlan(plan, world), { input, mould } = setting!
    const start = (of: typeof input) => settingMix({ ...of, ratio: of.ratio.value }).start
    const alone = start(momentsInput(plan, ratio, mould, input.stirFrom!))
    expect(alone).toBeCloseTo(8.48, 1)
    // All of 0.4 kg of plastic to a kilogram of powder would make it 2.0; only what is wetted counts, a third.
    expect(start(input) - alone).toBeGreaterThan(0.4)
    expect(start(input) - alone).toBeLessThan(1)
    // Kneaded in a bag, there is none.
    expect(momentsInput({ ...plan, school: 'bag' }, ratio, mould, 0, world, batches[0]).bucket).toBeUndefined()
  })
})
