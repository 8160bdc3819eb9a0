import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { aroundPart, atScale } from './gauge/around'
import { stackFace, withFace } from './gauge/face'
import { layerVolumes, shellShares, shellVolume } from './gauge/shells'
import { combineGauges, gaugeProblem, gaugeResult, type Gauge } from './gauge/gauge'
import { needsRelease, readinessOf, releaseRule } from './readiness'
import { METRIC } from '../units/units'
import { disagreeWords, GAUGE_PROBLEM_WORDS, readyWords } from './words'
import {
  outlineArea,
  shapeDoubt,
  shapeProblem,
  shapeVolume,
  turnedArea,
  turnedUndercuts,
  type Shape,
  type TurnedPoint,
} from './gauge/shapes'

const mm3 = (shape: Shape) => shapeVolume(shape) * 1e9
const mm = (v: number) => v / 1000

describe('shapes (worked by hand from solid geometry)', () => {
  it.each<[string, Shape, number]>([
    [
      'a cap of a sphere R 100 deep 30',
      { kind: 'cap', rim: mm(2 * Math.sqrt(100 ** 2 - 70 ** 2)), depth: mm(30) },
      254_469,
    ],
    ['a bowl of rim 200 deep 60 cut from a sphere', { kind: 'cap', rim: mm(200), depth: mm(60) }, 1_055_575],
    ['a tray 100 x 60 to 120 x 80, 50 high', {
      kind: 'tray',
      bottomWidth: mm(100),
      bottomLength: mm(60),
      topWidth: mm(120),
      topLength: mm(80),
      height: mm(50),
    }, 386_667],
    ['a bucket 220 to 280, 260 high', { kind: 'cup', bottom: mm(220), top: mm(280), height: mm(260) }, 12_824_000],
    ['a cylinder of 200 to its litre', { kind: 'cylinder', across: mm(200), height: mm(31.831) }, 1e6],
    [
      'a ball as an ellipsoid',
      { kind: 'ellipsoid', width: mm(100), length: mm(100), height: mm(100) },
      4 / 3 * Math.PI * 50 ** 3,
    ],
    [
      'half of it as a bowl',
      { kind: 'bowl', width: mm(100), length: mm(100), depth: mm(50) },
      2 / 3 * Math.PI * 50 ** 3,
    ],
    ['an L traced once round', {
      kind: 'outline',
      points: [[0, 0], [40, 0], [40, 10], [10, 10], [10, 30], [0, 30]].map(([x, y]) => ({ x: mm(x!), y: mm(y!) })),
      height: mm(10),
    }, 6000],
  ])('%s', (_, shape, expected) => {
    expect(mm3(shape) / expected).toBeCloseTo(1, 3)
  })

  const vase: TurnedPoint[] = [[0, 60], [40, 90], [80, 50], [100, 56]].map(([h, d]) => ({
    height: mm(h!),
    across: mm(d!),
  }))
  it('a turned vase holds what Pappus gives, and locks below its neck by 20 mm', () => {
    expect(mm3({ kind: 'turned', points: vase })).toBeCloseTo(381_368, -1)
    // Pappus: 2 pi times the centroid radius times the area of the half section.
    expect(2 * Math.PI * 17.696 * 3430 / mm3({ kind: 'turned', points: vase })).toBeCloseTo(1, 3)
    const [worst] = turnedUndercuts(vase)
    expect(worst!.by * 1000).toBeCloseTo(20, 6)
    expect(worst!.from).toBeLessThan(mm(40))
    expect(turnedUndercuts([[0, 40], [30, 80], [60, 100]].map(([h, d]) => ({ height: mm(h!), across: mm(d!) }))))
      .toEqual([])
  })

  it('a cylinder drawn as a profile has the area of its wall and floor', () => {
    expect(turnedArea([{ height: 0, across: 0.1 }, { height: 0.2, across: 0.1 }])).toBeCloseTo(
      Math.PI * 0.1 * 0.2 + Math.PI / 4 * 0.01,
      12,
    )
  })

  const box = { kind: 'box', width: 0.1, length: 0.2, height: 0.05 } as const
  it.each<[string, readonly Shape[], number]>([
    ['a box: floor and four walls', [box], 0.02 + 0.6 * 0.05],
    ['a cup: floor and slant', [{ kind: 'cup', bottom: 0.06, top: 0.12, height: 0.04 }],
      Math.PI * 0.03 ** 2 + Math.PI * 0.09 * 0.05],
    ['a tray that is a box', [{
      kind: 'tray', bottomWidth: 0.1, bottomLength: 0.2, topWidth: 0.1, topLength: 0.2, height: 0.05,
    }], 0.02 + 0.6 * 0.05],
    ['half a ball', [{ kind: 'cap', rim: 0.1, depth: 0.05 }], 2 * Math.PI * 0.05 ** 2],
    ['half an egg that is half a ball', [{ kind: 'bowl', width: 0.1, length: 0.1, depth: 0.05 }], 2 * Math.PI * 0.05 ** 2],
    ['a ball', [{ kind: 'ellipsoid', width: 0.1, length: 0.1, height: 0.1 }], 4 * Math.PI * 0.05 ** 2],
    ['an outline', [{ kind: 'outline', points: [{ x: 0, y: 0 }, { x: 0.1, y: 0 }, { x: 0.1, y: 0.2 }, { x: 0, y: 0.2 }],
      height: 0.05 }], 0.02 + 0.6 * 0.05],
    ['a box on a box: the ledge between them too', [box, { kind: 'box', width: 0.2, length: 0.2, height: 0.01 }],
      0.05 + 0.02 + 0.8 * 0.01],
  ])('inner face of %s', (_, stack, face) => {
    expect(stackFace(stack)).toBeCloseTo(face, 9)
  })

  it('what touches a mould is known from its measures or its model, and a wall of it then takes what it must', () => {
    const mouth = { shape: 'rectangular', width: 0.1, length: 0.2 } as const
    const shapes = { how: 'shapes', stack: [box], error: 0.001 } as const
    const surface = 2 * 0.02 + 0.6 * 0.05
    expect(withFace({ mouth, gauges: [shapes] }).face).toBeCloseTo(0.05, 9)
    expect(withFace({ mouth, gauges: [{ how: 'mesh', volume: 1e-3, trusted: true, surface }] }).face).toBeCloseTo(0.05, 9)
    expect(withFace({ mouth, gauges: [{ how: 'told', volume: 1e-3, percent: 5 }] })).not.toHaveProperty('face')
    expect(withFace({ mouth })).not.toHaveProperty('face')
  })

  it('growing every length by a factor grows the volume by its cube', () => {
    fc.assert(fc.property(fc.double({ min: 0.2, max: 5, noNaN: true }), (k) => {
      const cup: Shape = { kind: 'cup', bottom: 0.05, top: 0.08, height: 0.1 }
      expect(shapeVolume({ kind: 'cup', bottom: 0.05 * k, top: 0.08 * k, height: 0.1 * k }) / shapeVolume(cup) / k ** 3)
        .toBeCloseTo(1, 9)
      expect(outlineArea([{ x: 0, y: 0 }, { x: k, y: 0 }, { x: 0, y: k }])).toBeCloseTo(k * k / 2, 9)
    }))
  })

  it('a millimetre on a small cup matters more than on a large one', () => {
    const cup = (k: number): Shape => ({ kind: 'cup', bottom: 0.05 * k, top: 0.06 * k, height: 0.07 * k })
    expect(shapeDoubt([cup(1)], 0.001)).toBeGreaterThan(3 * shapeDoubt([cup(4)], 0.001))
    // By hand for a box: squares of the relative errors of its three lengths add up.
    expect(shapeDoubt([{ kind: 'box', width: 0.1, length: 0.2, height: 0.05 }], 0.001)).toBeCloseTo(
      Math.hypot(0.01, 0.005, 0.02),
      9,
    )
  })

  it.each<[Shape, string]>([
    [{ kind: 'box', width: 0, length: 1, height: 1 }, 'Every measure has to be more than zero.'],
    [{ kind: 'outline', points: [{ x: 0, y: 0 }], height: 1 }, 'An outline needs three corners at least.'],
    [
      { kind: 'outline', points: [{ x: 0, y: 0 }, { x: 1, y: 1 }, { x: 2, y: 2 }], height: 1 },
      'This outline encloses nothing; put its corners in order, once round.',
    ],
    [
      { kind: 'turned', points: [{ height: 0.1, across: 1 }, { height: 0, across: 1 }] },
      'The heights must rise from the bottom up.',
    ],
  ])('%o is refused', (shape, sentence) => {
    expect(GAUGE_PROBLEM_WORDS[shapeProblem(shape)!]).toBe(sentence)
  })
})

describe('gauging', () => {
  const weight: Gauge = { how: 'water-weight', mass: 0.998, temperature: 20 },
    jug: Gauge = { how: 'water-jug', reading: 1e-3, step: 25e-6 }
  const gravel: Gauge = { how: 'gravel', reading: 1.02e-3, step: 25e-6, grain: 0.003, gap: 0.03 },
    eye: Gauge = { how: 'water-part', water: 4e-4, share: 0.4 }

  it('a kilogram of water at 20 degC is 1.0029 l once air is allowed for', () => {
    expect(gaugeResult({ how: 'water-weight', mass: 1, temperature: 20 }).volume * 1000).toBeCloseTo(1.00285, 4)
  })

  it('four ways agree on a bowl, the surest speaks loudest, and together they are surer than any', () => {
    const all = combineGauges([weight, jug, gravel, eye])
    expect(all.disagree).toBeUndefined()
    expect(all.low < all.value && all.value < all.high).toBe(true)
    expect(all.high / all.low).toBeLessThan(combineGauges([weight]).high / combineGauges([weight]).low)
    expect(Math.abs(all.value - 1e-3)).toBeLessThan(0.005e-3)
  })

  it('contradiction widens the range and says so', () => {
    const odd = combineGauges([weight, { how: 'water-jug', reading: 1.3e-3, step: 25e-6 }])
    expect(odd.disagree).toEqual({ least: expect.closeTo(1.001e-3, 6) as number, most: 1.3e-3 })
    expect(disagreeWords(odd.disagree!, METRIC)).toMatch(/^These do not agree: 1.000 ml against 1.300 ml\./)
    expect(odd.high / odd.low).toBeGreaterThan(1.15)
  })

  it('a curved shell takes more than area times thickness: 21 % on a ball of 50 mm with 10 mm', () => {
    const flat = gaugeResult({ how: 'shell', area: 0.03, relief: 1, thickness: 0.01, layers: 1 }),
      curved = gaugeResult({ how: 'shell', area: 0.03, relief: 1, thickness: 0.01, layers: 1, radius: 0.05 })
    // Exact: (60^3 - 50^3) / (3 x 50^2 x 10).
    expect(curved.volume / flat.volume).toBeCloseTo((60 ** 3 - 50 ** 3) / (3 * 50 ** 2 * 10), 9)
  })

  it('an outline that crosses itself is said, one that only turns inward is not', () => {
    const outline = (...points: (readonly [number, number])[]) =>
      shapeProblem({ kind: 'outline', height: 0.01, points: points.map(([x, y]) => ({ x, y })) })
    expect(outline([0, 0], [2, 2], [2, 0], [0, 1])).toBe('outline-crosses')
    expect(outline([0, 0], [2, 0], [2, 2], [1, 0.5], [0, 2])).toBeUndefined()
    expect(outline([0, 0], [1, 0], [1, 1], [0, 1])).toBeUndefined()
  })

  it('a jacket that was followed around a model is a shell: a ball’s measured layers give the ball’s closed form', () => {
    const ball = { kind: 'ball', across: 0.1 } as const, taken = layerVolumes(ball, 0.01, 3)
    const grown = { kind: 'grown', each: 0.01, taken } as const
    for (const thickness of [0.01, 0.02, 0.03])
      expect(shellVolume(grown, thickness)).toBeCloseTo(shellVolume(ball, thickness), 9)
    // Within a layer it is taken as even: a tenth too much in the middle of the first, a hundredth in the last; beyond
    // what was measured the last term of the growth is left out.
    for (const [thickness, off] of [[0.005, 0.1], [0.025, 0.02], [0.04, 0.01]] as const)
      expect(Math.abs(shellVolume(grown, thickness) / shellVolume(ball, thickness) - 1)).toBeLessThan(off)
    const gauge = { how: 'shell', area: 1, relief: 1, thickness: 0.01, layers: 3, body: grown } as const
    expect(gaugeResult(gauge)).toMatchObject({ volume: shellVolume(ball, 0.03), kind: 'engineering guess' })
    expect(shellShares(gauge, [0.5, 0.5])[1]).toBeGreaterThan(0.5)
  })

  it('the layers of a shell around a body add up to what is gauged, relief and all', () => {
    const gauge = {
      how: 'shell', area: 1, relief: 1.2, thickness: 0.01, layers: 3,
      body: { kind: 'box', width: 0.2, length: 0.15, height: 0.1 },
    } as const
    expect(1000 * gaugeResult(gauge).volume / 1.2).toBeCloseTo(1.4456 + 1.7534 + 2.0864, 3)
  })

  it.each<[Gauge, string]>([
    [{ how: 'gravel', reading: 1e-3, step: 1e-5, grain: 0.02, gap: 0.03 }, 'too coarse'],
    [{ how: 'water-part', water: 1e-3, share: 0 }, 'share that is full'],
    [{ how: 'water-weight', mass: NaN, temperature: 20 }, 'Say what the water weighed'],
    [{ how: 'dam', area: 0.01, printArea: 0.02, printDepth: 0.01, cover: 0.02 }, 'The print lies inside the ring'],
    [{ how: 'shapes', stack: [], error: 0.001 }, 'Add a shape'],
  ])('%o is refused: %s', (g, words) => {
    expect(GAUGE_PROBLEM_WORDS[gaugeProblem(g)!]).toContain(words)
    expect(() => combineGauges([g])).toThrow(RangeError)
  })

  it('a print 280 x 100 mm, 15 deep in a ring of 0.05 m2 with 25 mm of cover takes about a litre and a half', () => {
    const r = gaugeResult({ how: 'dam', area: 0.05, printArea: 0.028, printDepth: 0.015, cover: 0.025 })
    expect(r.volume * 1000).toBeCloseTo(1.25 + 0.21, 2)
    expect(r.doubt).toBeLessThan(0.1)
  })
})

describe('around a part, at scale, and ready', () => {
  it('leaves 25 mm all round and below, and fills with water and powder to the millilitre', () => {
    const a = aroundPart({ width: 0.09, thickness: 0.05, depth: 0.18, volume: 4e-4 })
    expect([a.across, a.height]).toEqual([0.14, 0.205])
    expect(a.impression).toBeCloseTo(Math.PI / 4 * 0.14 ** 2 * 0.205 - 4e-4, 12)
    expect(a.water / 998 + a.powder / 2300).toBeCloseTo(a.impression, 12)
  })

  it('a wall of 3 m is 125 mm at 1 : 24', () => {
    expect(atScale(3, 24)).toBeCloseTo(0.125, 12)
  })

  it('gives the release rule for the pair, and a short list of this mould’s own', () => {
    expect(releaseRule('polyurethane', { additions: [] }).release).toBe('usually-none')
    expect(releaseRule('polyurethane', { additions: [{ id: 'polymer', share: 0.05 }] }).release).toBe('always')
    // Only what is laid between mould and plaster can be missing: talc is for the latex itself.
    const accused = (['silicone', 'polyurethane', 'latex', 'plaster', 'metal', 'wood'] as const)
      .filter(m => needsRelease(releaseRule(m, { additions: [] })))
    expect(accused).toEqual(['plaster', 'metal', 'wood'])
    const list = readinessOf({
      material: 'silicone',
      halves: 2,
      cradle: true,
      pourHole: 0.02,
      fragile: true,
      wear: [{ tear: true }],
      uses: 58,
      life: 60,
    }, { additions: [] })
    expect(readyWords(list[0]!)).toMatch(/^Halves keyed/)
    expect(list).toHaveLength(5)
    expect(readyWords(readinessOf({ material: 'ground', fragile: false }, { additions: [] })[0]!)).toContain('ruler')
    expect(readyWords(readinessOf({ material: 'plaster', fragile: false }, { additions: [] })[0]!)).toContain('Soap')
  })
})
