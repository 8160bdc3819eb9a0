import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { vesselVolume } from '../mould/gauge/vessel'
import { insideBetween, mixLevel, siftedLevels } from './bucket'
import { FORM_IDS } from './form-ids'
import { FORMS } from './forms'
import { formOf, levelOf, mixBelow, profileOf, volumeBelow, type Drawable } from './profile'
import { SACK, sackLevel } from './sack'
import { dampAt, warmthStep } from './warmth'

const mouth = (shape: 'round' | 'rectangular', width: number, length = width) => ({ shape, width, length })

/** Volume of a drawn cut by slices of its outline, an independent way: half widths by crossing the corners. */
function bySlices(points: readonly { x: number, z: number }[], turned: boolean, length: number): number {
  const deep = Math.max(...points.map(p => p.z)), SLICES = 4000, step = deep / SLICES
  let sum = 0
  for (let k = 0; k < SLICES; k++) {
    const z = (k + 0.5) * step
    const cross = points.flatMap((p, i) => {
      const q = points[(i + 1) % points.length]!
      return (p.z > z) === (q.z > z) ? [] : [p.x + (q.x - p.x) * (z - p.z) / (q.z - p.z)]
    }).sort((a, b) => a - b)
    for (let i = 0; i + 1 < cross.length; i += 2) {
      const [a, b] = [cross[i]!, cross[i + 1]!]
      // A turned one is symmetrical: a ring where its floor rises in the middle.
      sum += turned ? Math.PI / 2 * Math.abs(b * Math.abs(b) - a * Math.abs(a)) * step : (b - a) * length * step
    }
  }
  return sum
}

describe('moulds, cut through', () => {
  const drawn = fc.record({
    form: fc.constantFrom(...FORM_IDS),
    mouth: fc.constantFrom(mouth('round', 0.09), mouth('rectangular', 0.2, 0.15), mouth('round', 0.4)),
    volume: fc.double({ min: 3e-5, max: 5e-3, noNaN: true }).map(value => ({ value })),
  })
  it('what is drawn holds what is stated, within 1 %, by slices', () => {
    fc.assert(fc.property(drawn, (mould) => {
      const { points, turned, length } = profileOf(mould)
      expect(bySlices(points, turned, length) / mould.volume.value).toBeCloseTo(1, 2)
      expect(points[0]).toEqual({ x: -mould.mouth.width / 2, z: 0 })
      expect(points.length).toBeLessThanOrEqual(40)
    }), { seed: 18, numRuns: 60 })
  })
  it('filled to a volume, the mix drawn in it is that volume, and stands higher with more', () => {
    fc.assert(fc.property(drawn, fc.double({ min: 0.05, max: 0.9, noNaN: true }), (mould, share) => {
      const profile = profileOf(mould), z = levelOf(profile, share * mould.volume.value)
      expect(bySlices(mixBelow(profile, z), profile.turned, profile.length) / (share * mould.volume.value))
        .toBeCloseTo(1, 1.9)
      expect(levelOf(profile, (share + 0.05) * mould.volume.value)).toBeLessThan(z)
    }), { seed: 18, numRuns: 60 })
    const cup = profileOf({ form: 'cup', mouth: mouth('round', 0.09), volume: { value: 4e-4 } })
    // A cup narrows: half of it is more than half as high.
    expect(levelOf(cup, 2e-4)).toBeLessThan(cup.depth / 2)
    expect(volumeBelow(cup, 0)).toBeCloseTo(4e-4, 9)
  })
  it('a mould that was measured is drawn as it was measured, and its sides bend to what it holds', () => {
    const stack = [{ kind: 'cup', bottom: 0.06, top: 0.1, height: 0.12 }] as const
    const cup: Drawable = {
      mouth: mouth('round', 0.1), volume: { value: 6.2e-4 }, gauges: [{ how: 'shapes', stack, error: 0.001 }],
    }
    const profile = profileOf(cup)
    expect(profile).toMatchObject({ turned: true, measured: true })
    expect(profile.depth).toBeCloseTo(0.12, 6)
    expect(bySlices(profile.points, true, 0.1) / 6.2e-4).toBeCloseTo(1, 2)
    expect(profileOf({ ...cup, gauges: [] }).measured).toBe(false)
  })
  it('is drawn as somebody chose, else by what is known', () => {
    const deep = { mouth: mouth('round', 0.06), volume: { value: 3e-4 } }
    expect(formOf(deep)).toBe('cup')
    expect(formOf({ ...deep, form: 'face' })).toBe('face')
    expect(formOf({ ...deep, kind: 'impression' })).toBe('print')
    expect(formOf({ mouth: mouth('rectangular', 0.2), volume: { value: 6e-4 } })).toBe('bat')
    expect(formOf({ mouth: mouth('rectangular', 0.1), volume: { value: 6e-4 } })).toBe('box')
  })
  it('every form is closed, and inside its square', () => {
    for (const id of FORM_IDS) {
      expect(FORMS[id].edge, id).toMatch(/Z$/)
      const { cut } = FORMS[id]
      expect([cut[0]![1], cut.at(-1)![1]], id).toEqual([0, 0])
      expect(Math.max(...cut.map(([x]) => Math.abs(x))), id).toBe(1)
    }
  })
})

describe('a bucket, cut through', () => {
  const bowl = { bottom: 0.1, top: 0.176, height: 0.125 }
  // 635 g of water and 907 g of gypsum cement of 2 740 kg/m3, settling at .475.
  const poured = { water: 635.9e-6, solid: 0.907 / 2740, settled: 0.475 }
  it('635.9 ml of water stand at 58.1 mm in the two-litre bowl (worked by hand), and the mix where all of it goes', () => {
    expect(siftedLevels(bowl, poured, 0).water).toBeCloseTo(0.0581, 4)
    const all = siftedLevels(bowl, poured, 1)
    expect(vesselVolume(bowl, all.water)).toBeCloseTo(poured.water + poured.solid, 9)
    expect(mixLevel(bowl, poured.water + poured.solid)).toBeCloseTo(all.water, 9)
  })
  it('the bed is the solid over its settled share; islands ride until it reaches the water', () => {
    const half = siftedLevels(bowl, poured, 0.5)
    expect(vesselVolume(bowl, half.mound)).toBeCloseTo(poured.solid / 2 / 0.475, 9)
    expect(half.islands).toBe('sinking')
    expect(siftedLevels(bowl, { ...poured, solid: 2 * poured.solid }, 1)).toMatchObject({ islands: 'staying' })
    expect(siftedLevels(bowl, poured, 0)).toMatchObject({ mound: 0, islands: 'none' })
  })
  it('the cut between two heights is as wide as the bucket there', () => {
    const cut = insideBetween(bowl, 0, 0.125)
    expect(cut[0]).toEqual({ x: -0.05, y: 0 })
    expect(cut[1]).toEqual({ x: -0.088, y: 0.125 })
  })
})

describe('a sack of powder', () => {
  it('stands as high as what is left of it takes, and no higher than its fold', () => {
    // 13 kg of 1 000 kg/m3 are 13 l: 250 mm in a sack of 400 by 130.
    expect(sackLevel(13, 1000)).toBeCloseTo(0.25, 9)
    expect(sackLevel(13, 1000) * SACK.width * SACK.thickness * 1000).toBeCloseTo(13, 9)
    expect([sackLevel(0, 900), sackLevel(-1, 900)]).toEqual([0, 0])
    expect(sackLevel(500, 900)).toBeLessThan(SACK.height)
  })
})

describe('warmth and damp', () => {
  it('is wet, rises to its warmest, and is stone again', () => {
    const moments = { gloss: 900, warmest: 1800 }
    expect([0, 899, 900, 1799, 1800, 9000].map(t => warmthStep(t, moments))).toEqual([0, 0, 1, 4, 4, 8])
    const steps = Array.from({ length: 60 }, (_, k) => warmthStep(k * 100, moments))
    expect(steps).toEqual([...steps].sort((a, b) => a - b))
  })
  it('damp is read between what was foretold', () => {
    const curve = [[0, 1], [100, 0.5], [300, 0.1]] as const
    expect([-5, 50, 200, 900].map(t => dampAt(curve, t))).toEqual([1, 0.75, 0.3, 0.1])
    expect(dampAt([], 0)).toBeUndefined()
  })
})
