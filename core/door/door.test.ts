import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { solveMix } from '../gypsum/mix'
import { OFFERED_CLASSES, powderClass } from '../gypsum/powders'
import { profileOf, volumeBelow } from '../drawing/profile'
import { safeHeight, vesselVolume } from '../mould/gauge/vessel'
import { workOutPlan } from '../plan/plan'
import { holdsOne, offBy, thingsOf, withoutScale, workOutDoor, type DoorNames, type DoorWish } from './door'
import { BUCKET_SIZE_IDS, BUCKET_SIZES, DOOR_KINDS, KINDS, SIZES } from './kinds'

const NAMES: DoorNames = { plan: 'Mine', mould: 'One', bucket: size => size, bag: 'My bag' }
const wish = (part: Partial<DoorWish> = {}): DoorWish => ({
  kind: 'heart', amount: { by: 'measures', measures: KINDS.heart.sizes.middle }, count: 9,
  classId: 'plaster-of-paris', way: 'weighed', ...part,
})
const things = (w: DoorWish) => {
  const made = thingsOf(w, NAMES)
  if (typeof made === 'string') throw new Error(made)
  return made
}

describe('what somebody fills', () => {
  it('by hand: a box, a bowl as a cap of a ball, a cup as a frustum, a tile', () => {
    const of = (kind: DoorWish['kind'], width: number, length: number, depth: number) => {
      const holds = holdsOne(wish({ kind, amount: { by: 'measures', measures: { width, length, depth } } }))
      return typeof holds === 'string' ? holds : holds.value * 1e6
    }
    expect(of('box', 0.1, 0.2, 0.05)).toBeCloseTo(1000, 6)
    expect(of('tile', 0.15, 0.15, 0.01)).toBeCloseTo(225, 6)
    // Half a ball of 100 across: 2/3 pi r3.
    expect(of('bowl', 0.1, 0, 0.05)).toBeCloseTo(2 / 3 * Math.PI * 125, 6)
    expect(of('cup', 0.1, 0.1, 0.1)).toBeCloseTo(Math.PI / 4 * 1000, 6)
    expect([of('box', 0, 1, 1), of('box', 2, 2, 2)]).toEqual(['no-measure', 'too-much'])
  })
  it('a grown-up’s hand holds about what one finds by water, 0.3 to 0.5 l (common practice, no source)', () => {
    const { middle } = KINDS.hand.sizes
    expect(KINDS.hand.volume(middle)).toBeGreaterThan(3e-4)
    expect(KINDS.hand.volume(middle)).toBeLessThan(5e-4)
  })
  it('the mix that filled them: 600 g and 300 ml fill three, less what was left', () => {
    const amount = { by: 'mix', powder: 0.6, water: 0.3, left: 0 } as const
    const { slurry } = solveMix(
      { powder: powderClass('plaster-of-paris'), ratio: 0.5, waterTemperature: 20 }, { what: 'powder', amount: 0.6 },
    )
    const whole = holdsOne(wish({ amount, count: 3 }))
    const less = holdsOne(wish({ amount: { ...amount, left: 0.09 }, count: 3 }))
    expect(whole).toMatchObject({ value: slurry / 3 })
    // A tenth of 900 g was left.
    expect(typeof less === 'string' ? less : less.value / (slurry / 3)).toBeCloseTo(0.9, 9)
    const deep = holdsOne(wish({ amount: { ...amount, left: { deep: 0.01, bucket: 'two' } }, count: 3 }))
    expect(typeof deep === 'string' ? deep : 3 * deep.value)
      .toBeCloseTo(slurry - vesselVolume(BUCKET_SIZES.two, 0.01), 9)
    expect(holdsOne(wish({ amount: { ...amount, left: 5 } }))).toBe('all-left')
    expect(holdsOne(wish({ amount: { ...amount, powder: 0 } }))).toBe('no-mix')
  })
  it('is drawn as large as it is', () => {
    for (const kind of DOOR_KINDS) for (const size of SIZES) {
      const { mould } = things(wish({ kind, amount: { by: 'measures', measures: KINDS[kind].sizes[size] } }))
      expect(volumeBelow(profileOf(mould), 0) / mould.volume.value, `${kind} ${size}`).toBeCloseTo(1, 4)
    }
  })
})

describe('what is worked out at the door', () => {
  it('every kind, size and powder can be poured, and its grams are those of the plan for the same case', () => {
    for (const kind of DOOR_KINDS) for (const size of SIZES) for (const { id: classId } of OFFERED_CLASSES) {
      const made = things(wish({
        kind, classId, count: 2, amount: { by: 'measures', measures: KINDS[kind].sizes[size] },
      }))
      const here = workOutDoor(made), { plan, mould, bucket } = made
      expect(here.problems.filter(p => p.severity === 'refuse'), `${kind} ${size} ${classId}`).toEqual([])
      const vessel = BUCKET_SIZES[bucket.size]
      const there = workOutPlan(plan, { moulds: [mould], bucket: { id: 'b', name: 'b', vessel } })
      expect(here.total).toEqual(there.total)
      // By first principles: what two of them take and what stays in the bucket.
      const recipe = { powder: powderClass(classId), ratio: here.ratio.value, waterTemperature: 20 }
      const mix = solveMix(recipe, { what: 'slurry', amount: 2 * mould.volume.value * 1.06 })
      expect(here.total.powder / mix.powder, `${kind} ${size} ${classId}`).toBeCloseTo(1, 1.5)
    }
  }, 60_000)
  it('drawn measures: never NaN, never less water or powder for more of it', () => {
    const side = fc.double({ min: 0.01, max: 0.3, noNaN: true })
    fc.assert(fc.property(
      fc.constantFrom(...DOOR_KINDS), side, side, side, fc.integer({ min: 1, max: 8 }),
      (kind, width, length, depth, count) => {
        const total = (n: number) =>
          workOutDoor(things(wish({ kind, count: n, amount: { by: 'measures', measures: { width, length, depth } } }))).total
        const [some, more] = [total(count), total(count + 1)]
        if (some.powder === 0 || more.powder === 0) return
        expect(Number.isFinite(some.powder + some.water)).toBe(true)
        expect(more.powder).toBeGreaterThan(some.powder)
        expect(more.water).toBeGreaterThan(some.water)
      },
    ), { seed: 19, numRuns: 40 })
  })
  it('takes the smallest bucket that does, and what the bag says', () => {
    const { bucket, plan, bag } = things(wish({ printed: { ratio: 0.6, sets: 1500 } }))
    const mix = workOutDoor(things(wish({ printed: { ratio: 0.6 } }))).batches[0]!.mix
    const holds = (id: typeof bucket.size) => vesselVolume(BUCKET_SIZES[id], safeHeight(BUCKET_SIZES[id]))
    const smaller = BUCKET_SIZE_IDS[BUCKET_SIZE_IDS.indexOf(bucket.size) - 1]
    expect(holds(bucket.size)).toBeGreaterThanOrEqual(mix.slurry)
    if (smaller) expect(holds(smaller)).toBeLessThan(mix.slurry * 1.01)
    expect(plan).toMatchObject({ ratio: 0.6, bag: bag?.id })
    expect(bag).toMatchObject({ printed: { ratio: 0.6, sets: 1500 } })
    expect(things(wish()).bag).toBeUndefined()
  })
  it('without a scale: cups by the loose bulk, handfuls, moulds full of water; each way with its honest error', () => {
    const made = things(wish()), { mix, castVolume } = workOutDoor(made).batches[0]!
    const loose = powderClass('plaster-of-paris').bulkLoose
    const without = withoutScale(made, { powder: mix.powder, water: mix.waterVolume, fills: castVolume })
    expect(without.powder * loose.low).toBeLessThan(mix.powder)
    expect(without.powder * loose.high).toBeGreaterThan(mix.powder)
    expect(without.handfuls).toBe(Math.round(mix.powder / 0.06))
    expect(without.mouldsFull).toBeCloseTo(mix.waterVolume / (9 * made.mould.volume.value), 9)
    // In several buckets, the moulds of one of them are its measure, as full as before.
    const many = things(wish({ count: 60, bucket: 'two' })), found = workOutDoor(many).batches
    expect(found.length).toBeGreaterThan(1)
    const of = found[0]!
    const one = withoutScale(many, { powder: of.mix.powder, water: of.mix.waterVolume, fills: of.castVolume })
    expect(one.mouldsFull).toBeCloseTo(without.mouldsFull!, 6)
    // Water would wash a print away.
    const print = things(wish({ kind: 'print', count: 1, amount: { by: 'measures', measures: KINDS.print.sizes.middle } }))
    const [batch] = workOutDoor(print).batches
    const ground = { powder: batch!.mix.powder, water: batch!.mix.waterVolume, fills: batch!.castVolume }
    expect(withoutScale(print, ground).mouldsFull).toBeUndefined()
    const [scale, eye, cups] = (['weighed', 'saturation', 'scoops'] as const).map(way => offBy(made, way).off)
    expect(scale).toBeLessThan(eye!)
    expect(scale).toBeLessThan(cups!)
  })
})
