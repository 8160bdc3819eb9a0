import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { measureMesh, meshRemarks, tightness, turnedInsideOut, unitChoices } from '../../core/mould/mesh'
import { columnSpans, spanVolume, type Vector } from '../../core/mould/spans'
import { readStl, writeStl } from '../../core/mould/stl'
import { bestVent, searchTilt, trappedAir, type Opening } from '../../core/mould/trapped-air'
import { lockedAlong, pullVerdict, searchPull } from '../../core/mould/undercut'
import { ball, box, positionsOf, torus, turned } from '../../core/mould/solids'
import { cupOnRoof, hook, rotated } from '../solids'

/** Runs a stepwise search to its end; @returns its result and the shares it reported. */
function finish<T>(work: Generator<number, T>): { result: T, shares: number[] } {
  const shares: number[] = []
  for (;;) {
    const step = work.next()
    if (step.done) return { result: step.value, shares }
    shares.push(step.value)
  }
}
const bytesOf = (text: string) => Uint8Array.from(text, c => c.charCodeAt(0))
const cube = positionsOf(box([0, 0, 0], [10, 20, 30]))

describe('measures (closed forms of solid geometry)', () => {
  it.each<[string, Float32Array, number, number, number]>([
    ['a box', cube, 6000, 2200, 1e-6], ['a ball of R 50', positionsOf(ball(50, 128, 256)), 4 / 3 * Math.PI * 50 ** 3, 4 * Math.PI * 50 ** 2, 1e-3],
    ['a torus 40/12 (Pappus)', positionsOf(torus(40, 12, 256, 128)), 2 * Math.PI ** 2 * 40 * 144, 4 * Math.PI ** 2 * 40 * 12, 1e-3],
  ])('%s', (_, positions, volume, area, within) => {
    const m = measureMesh(positions)
    expect(Math.abs(m.volume / volume - 1)).toBeLessThan(within)
    expect(Math.abs(m.area / area - 1)).toBeLessThan(within)
    expect(tightness(positions)).toMatchObject({ open: 0, crowded: 0, flipped: 0 })
    expect(Math.abs(spanVolume(columnSpans(positions, [0.3, 0.2, 0.9], 128)) / m.volume - 1)).toBeLessThan(1e-3)
  })

  it('a hole, a doubled wall, a flipped triangle and a solid inside out each get their sentence', () => {
    const words = (positions: Float32Array) => meshRemarks(measureMesh(positions), tightness(positions))
    expect(words(cube)).toEqual({ trusted: true, sentences: [] })
    expect(words(cube.slice(9)).sentences[0]).toMatch(/^It has holes: 3 open edges/)
    const flipped = cube.slice()
    flipped.set(turnedInsideOut(cube.slice(0, 9)))
    expect(words(flipped).sentences.join()).toMatch(/3 edges have neighbours facing opposite ways/)
    expect(words(turnedInsideOut(cube))).toMatchObject({ trusted: true, sentences: ['It is inside out as a whole; it is read the right way round.'] })
    expect(words(positionsOf([...box([0, 0, 0], [1, 1, 1]), box([0, 0, 0], [1, 1, 1])[0]!])).sentences.join()).toMatch(/shared by more than two/)
    expect(columnSpans(cube.slice(18), [0, 0, 1], 32).bad).toBeGreaterThan(0)
  })

  it('asks which unit was meant, and says which are out of reason', () => {
    const inches = unitChoices(measureMesh(positionsOf(box([0, 0, 0], [4, 4, 2]))))
    expect(inches.filter(u => u.plausible).map(u => u.unit)).toEqual(['cm', 'inch'])
    expect(inches.find(u => u.unit === 'inch')!.volume).toBeCloseTo(32 * 0.0254 ** 3, 12)
  })
})

describe('STL', () => {
  it('what is written is read back, binary; text says the same', () => {
    const again = readStl(writeStl({ positions: cube }))
    expect(again).toEqual({ ok: true, positions: cube, measures: measureMesh(cube), remarks: [] })
    const text = `solid a box\n${Array.from({ length: 12 }, (_, t) => `facet normal 0 0 0\nouter loop\n${[0, 1, 2].map(k => `vertex ${[...cube.slice(9 * t + 3 * k, 9 * t + 3 * k + 3)].join(' ')}`).join('\n')}\nendloop\nendfacet`).join('\n')}\nendsolid`
    expect(readStl(bytesOf(text))).toMatchObject({ ok: true, positions: cube, remarks: [] })
  })

  it('a binary file whose header says “solid” is still binary', () => {
    const bytes = writeStl({ positions: cube })
    bytes.set(bytesOf('solid facet'))
    expect(readStl(bytes)).toMatchObject({ ok: true, remarks: [] })
  })

  const lying = writeStl({ positions: cube })
  new DataView(lying.buffer).setUint32(80, 4_000_000_000, true)
  const broken = writeStl({ positions: cube })
  new DataView(broken.buffer).setFloat32(84 + 12, NaN, true)
  it.each<[string, Uint8Array, RegExp]>([
    ['nothing', new Uint8Array(0), /^This file is empty\.$/], ['a letter', bytesOf('Dear Sir or Madam'), /^This is no STL model/], ['text without triangles', bytesOf('solid x facet endsolid'), /no triangle was found/],
    ['a lying count', lying, /announces 4000000000 triangles and holds 12/], ['a broken-off file', writeStl({ positions: cube }).slice(0, 84 + 50 * 5 + 20), /announces 12 triangles and holds 5/],
    ['a NaN', broken, /^1 triangle has impossible numbers and was left out/], ['text that breaks off', bytesOf('solid x\nfacet normal 0 0 1 outer loop vertex 0 0 0 vertex 1 0 0 vertex 0 1 0 endloop endfacet facet vertex 1 1 1'), /middle of a triangle/],
  ])('%s is answered in words', (_, bytes, words) => {
    const read = readStl(bytes)
    expect(read.ok ? read.remarks.join(' ') : read.sentence).toMatch(words)
  })

  it('no bytes whatever make it throw or give a number that is none', () => {
    fc.assert(fc.property(fc.uint8Array({ maxLength: 400 }), (noise) => {
      const read = readStl(noise)
      if (read.ok) expect([...read.positions].every(Number.isFinite)).toBe(true)
    }))
  })
})

describe('undercuts (analytic cases)', () => {
  const barrel = turned(Array.from({ length: 65 }, (_, i) => [40 - 10 * ((80 * i / 64 - 40) / 40) ** 2, 80 * i / 64] as const))
  it.each<[string, Float32Array, Vector, number, number]>([
    ['a frustum lets go', positionsOf(turned([[30, 0], [24, 60]])), [0, 0, 1], 0, 0], ['upside down it locks all it overhangs', positionsOf(turned([[24, 0], [30, 60]])), [0, 0, 1], 31_667, 0],
    ['a barrel locks below its belly', positionsOf(barrel), [0, 0, 1], 30_997, 0], ['a ball locks under its waist: pi R^3 / 3', positionsOf(ball(50)), [0, 0, 1], Math.PI * 50 ** 3 / 3, 0],
    ['a torus along its axis', positionsOf(torus(40, 12)), [0, 0, 1], 2 * Math.PI * 40 * (2 * 144 - Math.PI * 144 / 2), 0],
  ])('%s', (_, positions, pull, onePiece, twoPart) => {
    const l = lockedAlong(positions, pull, 128)
    expect(Math.abs(l.onePiece - onePiece)).toBeLessThan(0.02 * Math.max(onePiece, 5000))
    expect(l.twoPart).toBeCloseTo(twoPart, 0)
  })
  it('two halves of a torus taken sideways lock its hole: pi (2 r R^2 - pi r^2 R + 4 r^3 / 3)', () => {
    const [R, r] = [40, 12]
    expect(lockedAlong(positionsOf(torus(R, r)), [1, 0, 0], 128).twoPart / (Math.PI * (2 * r * R * R - Math.PI * r * r * R + 4 * r ** 3 / 3))).toBeCloseTo(1, 1)
  })
  it('an hourglass is found to open sideways in two halves, with words for each kind of mould', () => {
    const { result, shares } = finish(searchPull(positionsOf(turned([[30, 0], [20, 40], [30, 80]]))))
    expect(result.twoPart.twoPart / result.twoPart.volume).toBeLessThan(0.005)
    expect(shares.length).toBeGreaterThan(10)
    expect(pullVerdict(lockedAlong(positionsOf(turned([[30, 0], [24, 60]])), [0, 0, 1], 64), false)).toMatch(/lets go of a rigid mould/)
    expect(pullVerdict(lockedAlong(positionsOf(ball(50)), [0, 0, 1], 64), false)).toMatch(/two opposite halves let go/)
    expect(pullVerdict(lockedAlong(positionsOf(torus(40, 12)), [1, 0, 0], 64), false)).toMatch(/two halves still lock/)
    expect(pullVerdict(lockedAlong(positionsOf(ball(50)), [0, 0, 1], 64), true)).toMatch(/peel it off like a sleeve/)
  })
})

describe('trapped air (analytic cases)', () => {
  const top = (at: Vector, radius: number): Opening => ({ at, radius, out: [0, 0, 1] })
  const legs = positionsOf(hook()), cup = positionsOf(cupOnRoof()), sphere = positionsOf(ball(50, 96, 192))
  it.each<[string, Vector, number]>([['upright it keeps its other leg', [0, 0, 1], 32_000], ['lying on the poured leg, all above it', [1, 0, 0], 56_000], ['lying on the other, nothing', [-1, 0, 0], 0], ['upside down, everything', [0, 0, -1], 96_000]])('a hook: %s', (_, up, exact) => {
    expect(Math.abs(trappedAir(legs, up, [top([10, 10, 100], 10)], [], 96).trapped - exact)).toBeLessThan(0.02 * Math.max(exact, 5000))
  })

  it('a cup on a box’s roof keeps its air whole, is listed with its peak, and one vent there frees it', () => {
    const hole = top([40, 40, 50], 3)
    const t = trappedAir(cup, [0, 0, 1], [hole], [], 96)
    expect(Math.abs(t.trapped - Math.PI * 225 * 40)).toBeLessThan(t.doubt)
    expect(t.pockets).toHaveLength(1)
    expect(t.pockets[0]!.peak[2]).toBeCloseTo(90, 1)
    expect(Math.hypot(t.pockets[0]!.peak[0], t.pockets[0]!.peak[1])).toBeLessThan(3)
    const vented = bestVent(cup, [0, 0, 1], [hole], [], 2)!
    expect(vented.after.trapped / t.trapped).toBeLessThan(0.02)
  })

  it('open on top, only what reaches the top is open: a shorter cup beside a taller one keeps its air', () => {
    const two = positionsOf([...box([-50, -50, 0], [50, 50, 50]), ...turned([[15, 40], [15, 90]], 96, [-25, 0, 0]), ...turned([[15, 40], [15, 70]], 96, [25, 0, 0])])
    const open: Opening = { at: [0, 0, 90], radius: 80, out: [0, 0, 1], reach: 0 }
    const t = trappedAir(two, [0, 0, 1], [open], [], 96)
    expect(Math.abs(t.trapped - Math.PI * 225 * 20)).toBeLessThan(t.doubt)
    expect(t.pockets).toHaveLength(1)
  })

  it.each([0, 45, 60, 90])('a ball with a small hole %i degrees from its top keeps the cap above the hole’s rim', (degrees) => {
    const a = degrees * Math.PI / 180, out: Vector = [Math.sin(a), 0, Math.cos(a)], radius = 1
    const rim = 50 * Math.cos(a) + radius * Math.sin(a), h = 50 - rim
    const t = trappedAir(sphere, [0, 0, 1], [{ at: [50 * out[0], 0, 50 * out[2]], radius, out }], [], 96)
    expect(Math.abs(t.trapped - Math.PI * h * h * (150 - h) / 3)).toBeLessThan(degrees === 0 ? 200 : Math.max(t.doubt, 0.02 * t.trapped))
  })

  it('above the lip of a side hole a vented box stays unfilled, and that is not called trapped', () => {
    const side: Opening = { at: [50, 0, 25], radius: 1e-3, out: [1, 0, 0] }
    const t = trappedAir(positionsOf(box([-50, -50, 0], [50, 50, 50])), [0, 0, 1], [side], [top([0, 0, 50], 2)], 96)
    expect(t.trapped).toBeLessThan(500)
    expect(t.aboveLip / 250_000).toBeCloseTo(1, 2)
  })

  it('turning mould and tilt together changes the answer by less than a column times the pockets’ ground', () => {
    fc.assert(fc.property(fc.tuple(fc.double({ min: -3, max: 3, noNaN: true }), fc.double({ min: -3, max: 3, noNaN: true }), fc.double({ min: -3, max: 3, noNaN: true })), (angles) => {
      const hole = top([40, 40, 50], 3), here = trappedAir(cup, [0, 0, 1], [hole], [], 64)
      const { positions, turn } = rotated(cup, angles)
      const there = trappedAir(positions, turn([0, 0, 1]), [{ at: turn(hole.at), radius: 3, out: turn([0, 0, 1]) }], [], 64)
      expect(Math.abs(there.trapped - here.trapped)).toBeLessThan(here.doubt + there.doubt)
    }), { numRuns: 25 })
  })

  it('the search tilts a ball’s hole to the top, and reports as it goes', () => {
    const a = 40 * Math.PI / 180, out: Vector = [Math.sin(a), 0, Math.cos(a)]
    const { result, shares } = finish(searchTilt(sphere, [0, 0, 1], [{ at: [50 * out[0], 0, 50 * out[2]], radius: 3, out }], [], 32, 48))
    expect(result.best.trapped).toBeLessThan(0.1 * result.upright.trapped)
    expect(result.angle * 180 / Math.PI).toBeGreaterThan(25)
    expect(result.angle * 180 / Math.PI).toBeLessThan(50)
    expect(shares.every((s, i) => s >= 0 && s <= 1 && (i === 0 || s >= shares[i - 1]!))).toBe(true)
  })
})
