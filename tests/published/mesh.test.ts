import fc from 'fast-check'
import manifold from 'manifold-3d'
import { describe, expect, it } from 'vitest'
import { airPools, restingAir } from '../../core/mould/mesh/air-pools'
import { airAfterTips, searchMoves, sideThatGoesDown } from '../../core/mould/mesh/fill-moves'
import {
  decimated,
  measureMesh,
  meshRemarks,
  tightness,
  turnedInsideOut,
  unitChoices,
} from '../../core/mould/mesh/mesh'
import { judged } from '../../core/mould/mesh/model'
import { columnSpans, normalised, spanVolume, type Vector } from '../../core/mould/mesh/spans'
import { readStl, writeStl } from '../../core/mould/mesh/stl'
import { bestVent, searchTilt, trappedAir, type Opening } from '../../core/mould/mesh/trapped-air'
import { lockedAlong, pullVerdict, searchPull } from '../../core/mould/mesh/undercut'
import { pullWords, MODEL_PROBLEM_WORDS, modelRemarkWords } from '../../core/mould/words'
import { ball, box, positionsOf, torus, turned } from '../../core/mould/mesh/solids'
import { readFileSync } from 'node:fs'
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
    ['a box', cube, 6000, 2200, 1e-6],
    ['a ball of R 50', positionsOf(ball(50, 128, 256)), 4 / 3 * Math.PI * 50 ** 3, 4 * Math.PI * 50 ** 2, 1e-3],
    [
      'a torus 40/12 (Pappus)',
      positionsOf(torus(40, 12, 256, 128)),
      2 * Math.PI ** 2 * 40 * 144,
      4 * Math.PI ** 2 * 40 * 12,
      1e-3,
    ],
  ])('%s', (_, positions, volume, area, within) => {
    const m = measureMesh(positions)
    expect(Math.abs(m.volume / volume - 1)).toBeLessThan(within)
    expect(Math.abs(m.area / area - 1)).toBeLessThan(within)
    expect(tightness(positions)).toMatchObject({ open: 0, crowded: 0, flipped: 0 })
    expect(Math.abs(spanVolume(columnSpans(positions, [0.3, 0.2, 0.9], 128)) / m.volume - 1)).toBeLessThan(1e-3)
  })

  it('a hole, a doubled wall, a flipped triangle and a solid inside out each get their sentence', () => {
    const judge = (positions: Float32Array) => meshRemarks(measureMesh(positions), tightness(positions))
    const words = (positions: Float32Array) => judge(positions).remarks.map(modelRemarkWords)
    expect(judge(cube)).toEqual({ trusted: true, remarks: [] })
    expect(words(cube.slice(9))[0]).toMatch(/^It has holes: 3 open edges/)
    const flipped = cube.slice()
    flipped.set(turnedInsideOut(cube.slice(0, 9)))
    expect(words(flipped).join()).toMatch(/3 edges have neighbours facing opposite ways/)
    expect(judge(turnedInsideOut(cube))).toEqual({ trusted: true, remarks: [{ code: 'inside-out' }] })
    expect(words(positionsOf([...box([0, 0, 0], [1, 1, 1]), box([0, 0, 0], [1, 1, 1])[0]!])).join()).toMatch(
      /shared by more than two/,
    )
    // Two boxes along one edge: the volume is that of both.
    const touching = positionsOf([...box([0, 0, 0], [1, 1, 1]), ...box([1, 1, 0], [2, 2, 1])])
    expect(judge(touching)).toEqual({ trusted: true, remarks: [{ code: 'touching', edges: 1 }] })
    expect(words(touching)[0]).toMatch(/^1 edge is shared by four faces or more: bodies touch along there/)
    expect(columnSpans(cube.slice(18), [0, 0, 1], 32).bad).toBeGreaterThan(0)
  })

  it('a general-purpose mesh library finds the same volume and area, and the same union of parts that run through each other', async () => {
    const library = await manifold()
    library.setup()
    /** The library wants shared corners. */
    const solid = (positions: Float32Array) => {
      const seen = new Map<string, number>(), corners: number[] = []
      const triVerts = new Uint32Array(positions.length / 3).map((_, c) => {
        const p = [...positions.subarray(3 * c, 3 * c + 3)], key = p.map(v => Math.fround(v) + 0).join()
        if (!seen.has(key)) {
          seen.set(key, corners.length / 3)
          corners.push(...p)
        }
        return seen.get(key)!
      })
      return new library.Manifold(
        new library.Mesh({ numProp: 3, vertProperties: Float32Array.from(corners), triVerts }),
      )
    }
    for (
      const positions of [
        cube,
        positionsOf(ball(50, 64, 128)),
        positionsOf(torus(40, 12)),
        positionsOf(turned([[30, 0], [20, 40], [30, 80]])),
      ]
    ) {
      const theirs = solid(positions), ours = measureMesh(positions)
      expect(ours.volume / theirs.volume()).toBeCloseTo(1, 5)
      expect(ours.area / theirs.surfaceArea()).toBeCloseTo(1, 5)
    }
    // A hook of three overlapping boxes, and a cup sunk into a box: by hand 96 000, and 500 000 + pi 15^2 40.
    const union = (parts: Float32Array[]) => parts.map(solid).reduce((a, b) => a.add(b)).volume()
    const boxes = [box([0, 0, 0], [20, 20, 100]), box([60, 0, 0], [80, 20, 100]), box([0, 0, 0], [80, 20, 20])].map(
      positionsOf,
    )
    expect(union(boxes)).toBeCloseTo(96_000, 0)
    const model = judged(positionsOf(hook()))
    expect(model.measures.volume / 96_000).toBeCloseTo(1, 2)
    expect(measureMesh(positionsOf(hook())).volume).toBeCloseTo(112_000, 0)
    expect(model.remarks).toEqual([{ code: 'overlaps' }])
    const sunk = [positionsOf(box([-50, -50, 0], [50, 50, 50])), positionsOf(turned([[15, 40], [15, 90]], 96))]
    expect(judged(positionsOf(cupOnRoof())).measures.volume / union(sunk)).toBeCloseTo(1, 2)
    expect(judged(cube).remarks).toEqual([])
  })

  it('a simpler mesh for searching stays closed and close', () => {
    const many = positionsOf(ball(50, 200, 400)), fewer = decimated(many, 60)
    expect(fewer.length).toBeLessThan(0.35 * many.length)
    expect(measureMesh(fewer).volume / measureMesh(many).volume).toBeCloseTo(1, 2)
    expect(columnSpans(fewer, [0.2, 0.4, 0.9], 64).bad).toBe(0)
    expect(decimated(cube, 60)).toBe(cube)
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
    const text = `solid a box\n${
      Array.from({ length: 12 }, (_, t) =>
        `facet normal 0 0 0\nouter loop\n${
          [0, 1, 2].map(k =>
            `vertex ${[...cube.slice(9 * t + 3 * k, 9 * t + 3 * k + 3)].join(' ')}`,
          ).join('\n')
        }\nendloop\nendfacet`).join('\n')
    }\nendsolid`
    expect(readStl(bytesOf(text))).toMatchObject({ ok: true, positions: cube, remarks: [] })
  })

  it('a binary file whose header says “solid” is still binary', () => {
    const bytes = writeStl({ positions: cube })
    bytes.set(bytesOf('solid facet'))
    expect(readStl(bytes)).toMatchObject({ ok: true, remarks: [] })
  })

  const lying = writeStl({ positions: cube })
  new DataView(lying.buffer).setUint32(80, 4_000_000_000, true)
  const silent = writeStl({ positions: cube }), short = writeStl({ positions: cube })
  new DataView(silent.buffer).setUint32(80, 0, true)
  new DataView(short.buffer).setUint32(80, 7, true)
  const broken = writeStl({ positions: cube })
  new DataView(broken.buffer).setFloat32(84 + 12, NaN, true)
  it.each<[string, Uint8Array, RegExp]>([
    ['nothing', new Uint8Array(0), /^This file is empty\.$/],
    ['a letter', bytesOf('Dear Sir or Madam'), /^This is no STL model/],
    ['text without triangles', bytesOf('solid x facet endsolid'), /no triangle was found/],
    ['a lying count', lying, /announces 4000000000 triangles and holds 12/],
    [
      'a broken-off file',
      writeStl({ positions: cube }).slice(0, 84 + 50 * 5 + 20),
      /announces 12 triangles and holds 5/,
    ],
    ['a count of none', silent, /announces no triangles and holds 12; all of them were taken/],
    ['a count that is too small', short, /announces 7 triangles and goes on after them, with room for 12/],
    ['a NaN', broken, /^1 triangle has impossible numbers and was left out/],
    [
      'text that breaks off',
      bytesOf(
        'solid x\nfacet normal 0 0 1 outer loop vertex 0 0 0 vertex 1 0 0 vertex 0 1 0 endloop endfacet facet vertex 1 1 1',
      ),
      /middle of a triangle/,
    ],
  ])('%s is answered in words', (_, bytes, words) => {
    const read = readStl(bytes)
    expect(read.ok ? read.remarks.map(modelRemarkWords).join(' ') : MODEL_PROBLEM_WORDS[read.code]).toMatch(words)
  })

  it('no bytes whatever make it throw or give a number that is none', () => {
    fc.assert(fc.property(fc.uint8Array({ maxLength: 400 }), (noise) => {
      const read = readStl(noise)
      if (read.ok) expect([...read.positions].every(Number.isFinite)).toBe(true)
    }))
  })
})

describe('undercuts (analytic cases)', () => {
  const barrel = turned(
    Array.from({ length: 65 }, (_, i) => [40 - 10 * ((80 * i / 64 - 40) / 40) ** 2, 80 * i / 64] as const),
  )
  it.each<[string, Float32Array, Vector, number, number]>([
    ['a frustum lets go', positionsOf(turned([[30, 0], [24, 60]])), [0, 0, 1], 0, 0],
    ['upside down it locks all it overhangs', positionsOf(turned([[24, 0], [30, 60]])), [0, 0, 1], 31_667, 0],
    ['a barrel locks below its belly', positionsOf(barrel), [0, 0, 1], 30_997, 0],
    ['a ball locks under its waist: pi R^3 / 3', positionsOf(ball(50)), [0, 0, 1], Math.PI * 50 ** 3 / 3, 0],
    [
      'a torus along its axis',
      positionsOf(torus(40, 12)),
      [0, 0, 1],
      2 * Math.PI * 40 * (2 * 144 - Math.PI * 144 / 2),
      0,
    ],
  ])('%s', (_, positions, pull, onePiece, twoPart) => {
    const l = lockedAlong(positions, pull, 128)
    expect(Math.abs(l.onePiece - onePiece)).toBeLessThan(0.02 * Math.max(onePiece, 5000))
    expect(l.twoPart).toBeCloseTo(twoPart, 0)
  })
  it('two halves of a torus taken sideways lock its hole: pi (2 r R^2 - pi r^2 R + 4 r^3 / 3)', () => {
    const [R, r] = [40, 12]
    expect(
      lockedAlong(positionsOf(torus(R, r)), [1, 0, 0], 128).twoPart
      / (Math.PI * (2 * r * R * R - Math.PI * r * r * R + 4 * r ** 3 / 3)),
    ).toBeCloseTo(1, 1)
  })
  it('an hourglass is found to open sideways in two halves, with words for each kind of mould', () => {
    const { result, shares } = finish(searchPull(positionsOf(turned([[30, 0], [20, 40], [30, 80]]))))
    expect(result.twoPart.twoPart / result.twoPart.volume).toBeLessThan(0.005)
    expect(shares.length).toBeGreaterThan(10)
    expect(pullWords(pullVerdict(lockedAlong(positionsOf(turned([[30, 0], [24, 60]])), [0, 0, 1], 64), false))).toMatch(
      /lets go of a rigid mould/,
    )
    expect(pullWords(pullVerdict(lockedAlong(positionsOf(ball(50)), [0, 0, 1], 64), false))).toMatch(/two opposite halves let go/)
    expect(pullWords(pullVerdict(lockedAlong(positionsOf(torus(40, 12)), [1, 0, 0], 64), false))).toMatch(/two halves still lock/)
    expect(pullWords(pullVerdict(lockedAlong(positionsOf(ball(50)), [0, 0, 1], 64), true))).toMatch(/peel it off like a sleeve/)
  })
})

describe('trapped air (analytic cases)', () => {
  const top = (at: Vector, radius: number): Opening => ({ at, radius, out: [0, 0, 1] })
  const legs = positionsOf(hook()), cup = positionsOf(cupOnRoof()), sphere = positionsOf(ball(50, 96, 192))
  it.each<[string, Vector, number]>([
    ['upright it keeps its other leg', [0, 0, 1], 32_000],
    ['lying on the poured leg, all above it', [1, 0, 0], 56_000],
    ['lying on the other, nothing', [-1, 0, 0], 0],
    ['upside down, everything', [0, 0, -1], 96_000],
  ])('a hook: %s', (_, up, exact) => {
    expect(Math.abs(trappedAir(legs, up, [top([10, 10, 100], 10)], [], 96).trapped - exact)).toBeLessThan(
      0.02 * Math.max(exact, 5000),
    )
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
    const two = positionsOf([
      ...box([-50, -50, 0], [50, 50, 50]),
      ...turned([[15, 40], [15, 90]], 96, [-25, 0, 0]),
      ...turned([[15, 40], [15, 70]], 96, [25, 0, 0]),
    ])
    const open: Opening = { at: [0, 0, 90], radius: 80, out: [0, 0, 1], reach: 0 }
    const t = trappedAir(two, [0, 0, 1], [open], [], 96)
    expect(Math.abs(t.trapped - Math.PI * 225 * 20)).toBeLessThan(t.doubt)
    expect(t.pockets).toHaveLength(1)
  })

  it.each([0, 45, 60, 90])(
    'a ball with a small hole %i degrees from its top keeps the cap above the hole’s rim',
    (degrees) => {
      const a = degrees * Math.PI / 180, out: Vector = [Math.sin(a), 0, Math.cos(a)], radius = 1
      const rim = 50 * Math.cos(a) + radius * Math.sin(a), h = 50 - rim
      const t = trappedAir(sphere, [0, 0, 1], [{ at: [50 * out[0], 0, 50 * out[2]], radius, out }], [], 96)
      expect(Math.abs(t.trapped - Math.PI * h * h * (150 - h) / 3)).toBeLessThan(
        degrees === 0 ? 200 : Math.max(t.doubt, 0.02 * t.trapped),
      )
    },
  )

  it('above the lip of a side hole a vented box stays unfilled, and that is not called trapped', () => {
    const side: Opening = { at: [50, 0, 25], radius: 1e-3, out: [1, 0, 0] }
    const t = trappedAir(positionsOf(box([-50, -50, 0], [50, 50, 50])), [0, 0, 1], [side], [top([0, 0, 50], 2)], 96)
    expect(t.trapped).toBeLessThan(500)
    expect(t.aboveLip / 250_000).toBeCloseTo(1, 2)
  })

  it('turning mould and tilt together changes the answer by less than a column times the pockets’ ground', () => {
    fc.assert(
      fc.property(
        fc.tuple(
          fc.double({ min: -3, max: 3, noNaN: true }),
          fc.double({ min: -3, max: 3, noNaN: true }),
          fc.double({ min: -3, max: 3, noNaN: true }),
        ),
        (angles) => {
          const hole = top([40, 40, 50], 3), here = trappedAir(cup, [0, 0, 1], [hole], [], 64)
          const { positions, turn } = rotated(cup, angles)
          const there = trappedAir(
            positions,
            turn([0, 0, 1]),
            [{ at: turn(hole.at), radius: 3, out: turn([0, 0, 1]) }],
            [],
            64,
          )
          expect(Math.abs(there.trapped - here.trapped)).toBeLessThan(here.doubt + there.doubt)
        },
      ),
      { numRuns: 25 },
    )
  })

  it('the search tilts a ball’s hole to the top, and reports as it goes', () => {
    const a = 40 * Math.PI / 180, out: Vector = [Math.sin(a), 0, Math.cos(a)]
    const { result, shares } = finish(
      searchTilt(sphere, [0, 0, 1], [{ at: [50 * out[0], 0, 50 * out[2]], radius: 3, out }], [], 32, 48),
    )
    expect(result.best.trapped).toBeLessThan(0.1 * result.upright.trapped)
    expect(result.angle * 180 / Math.PI).toBeGreaterThan(25)
    expect(result.angle * 180 / Math.PI).toBeLessThan(50)
    expect(shares.every((s, i) => s >= 0 && s <= 1 && (i === 0 || s >= shares[i - 1]!))).toBe(true)
  })
})

describe('filling, shutting and tipping', () => {
  const legs = positionsOf(hook()), cup = positionsOf(cupOnRoof())
  const corner: Opening = { at: [40, 40, 50], radius: 3, out: [0, 0, 1] }

  it('air put under one leg of a shut hook spills over the bend into the other, and when both are full goes on down', () => {
    const spans = columnSpans(legs, [0, 0, 1], 96), pools = airPools(spans, [])
    const rest = (ml: number) => {
      const risen = new Float64Array(pools.nodes.length)
      // The first peak is that of one of the legs; each holds 20 x 20 x 80 above the bend.
      risen[0] = ml
      const level = restingAir(pools, risen)
      const depth = [0, 0]
      for (let c = 0; c < spans.nu * spans.nv; c++)
        for (let i = spans.start[c]!; i < spans.start[c + 1]!; i++) if (spans.hi[i]! > 99)
          depth[pools.peak[i] === 0 ? 0 : 1] = 100 - level[i]!
      return depth
    }
    for (const [given, here, there] of [[20_000, 50, 0], [40_000, 80, 20], [80_000, 90, 90]] as const) {
      const [a, b] = rest(given)
      expect(Math.abs(a! - here)).toBeLessThan(2)
      expect(Math.abs(b! - there)).toBeLessThan(2)
    }
  })

  it.each<[string, Float32Array, Opening[]]>([
    ['a cup on a roof', cup, [corner]],
    ['a hook', legs, [{ at: [10, 10, 100], radius: 10, out: [0, 0, 1] }]],
    ['a ball with its hole at the side', positionsOf(ball(50, 64, 128)), [{
      at: [50, 0, 0],
      radius: 3,
      out: [1, 0, 0],
    }]],
  ])('an empty mould that only fills keeps what the flood says: %s, whichever way up', (_, positions, openings) => {
    for (const up of [[0, 0, 1], [0.3, 0.2, 0.8], [-0.7, 0.4, 0.2]] as Vector[]) {
      const flood = trappedAir(positions, up, openings, [], 64), pools = airAfterTips(positions, up, openings, [], 64)
      expect(Math.abs(pools.filled - flood.trapped) / flood.volume).toBeLessThan(1e-5)
    }
  })

  const number = fc.double({ min: -1, max: 1, noNaN: true })
  it('air given to any peaks of a shut mould, whichever way up, is there when it has come to rest: none lost, none made, and it fills to its ceilings', () => {
    fc.assert(
      fc.property(
        fc.tuple(number, number, number),
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 5, maxLength: 5 }),
        fc.double({ min: 0.02, max: 0.98, noNaN: true }),
        (up, parts, share) => {
          const spans = columnSpans(cup, up, 32),
            pools = airPools(spans, []),
            risen = new Float64Array(pools.nodes.length),
            area = spans.h ** 2
          const peaks = [...new Set(pools.peak)],
            total = share * spanVolume(spans),
            sum = peaks.reduce((n, _, k) => n + parts[k % 5]! + 0.01, 0)
          peaks.forEach((p, k) => risen[p] = total * (parts[k % 5]! + 0.01) / sum)
          const level = restingAir(pools, risen)
          let held = 0
          for (let i = 0; i < level.length; i++) {
            expect(level[i]).toBeGreaterThanOrEqual(spans.lo[i]! - 1e-9)
            expect(level[i]).toBeLessThanOrEqual(spans.hi[i]! + 1e-9)
            held += (spans.hi[i]! - level[i]!) * area
          }
          expect(held / total).toBeCloseTo(1, 6)
        },
      ),
      { numRuns: 60 },
    )
  })
  it('a direction is one of length one, however small its numbers', () => {
    // Drawn once: numbers so small that they have five binary digits.
    for (const v of [[8.4e-323, 4e-323, 8e-323], [3, -4, 12], [1e300, 1e300, 0], [0, 0, -2e-320]] as Vector[])
      expect(Math.hypot(...normalised(v))).toBeCloseTo(1, 12)
    expect(normalised([3, -4, 12])).toEqual([3 / 13, -4 / 13, 12 / 13].map(x => expect.closeTo(x, 15) as number))
    expect(normalised([0, 0, 0])).toEqual([0, 0, 0])
  })
  it('a tip never brings air in', () => {
    fc.assert(fc.property(fc.array(fc.tuple(number, number), { minLength: 1, maxLength: 3 }), (tips) => {
      const { filled, moves } = airAfterTips(cup, [0, 0, 1], [corner], tips.map(([x, y]): Vector => [x, y, 0.4]), 32)
      moves.forEach((m, i) => expect(m.left).toBeLessThan((moves[i - 1]?.left ?? filled) * (1 + 1e-9)))
    }), { numRuns: 15 })
  })

  it('a cup on a roof is freed by tipping the hole’s corner up, and tipped the other way its air comes back', () => {
    expect(airAfterTips(cup, [0, 0, 1], [corner], [[1, 1, 0]], 64).moves[0]!.left).toBeLessThan(50)
    // Tipped the other way the air comes to rest under the roof far from the hole, and rises back into the cup.
    expect(
      airAfterTips(cup, [0, 0, 1], [corner], [[-1, -1, 0.02]], 64).moves[0]!.left
      / airAfterTips(cup, [0, 0, 1], [corner], [], 64).filled,
    ).toBeGreaterThan(0.5)
    const { result, shares } = finish(searchMoves(cup, [0, 0, 1], [corner], 32, 64))
    expect(result.moves).toHaveLength(1)
    expect(result.moves[0]!.left).toBeLessThan(0.001 * result.volume)
    expect(sideThatGoesDown([0, 0, 1], result.moves[0]!.up)).toMatch(/^−[xy]( and −[xy])?$/)
    expect(shares.every((s, i) => s >= 0 && s <= 1 && (i === 0 || s >= shares[i - 1]!))).toBe(true)
  })

  it('the samples’ faults go away: the bell-pull by one tip, the rosette by one or two of at most 120 degrees', () => {
    for (
      const [name, opening] of [['bell-pull', { at: [0, 0, 60], radius: 6, out: [0, 0, 1] }], ['rosette', {
        at: [0, 0, 22],
        radius: 150,
        out: [0, 0, 1],
        reach: 0,
      }]] as const
    ) {
      const read = readStl(new Uint8Array(readFileSync(`public/samples/${name}.stl`)))
      if (!read.ok) throw new Error(read.code)
      const { result } = finish(searchMoves(read.positions, [0, 0, 1], [opening]))
      expect(result.moves.length).toBeGreaterThan(0)
      expect(result.moves.at(-1)!.left / result.volume).toBeLessThan(0.0005)
      for (const m of result.moves) expect(m.angle).toBeLessThan(2.1)
    }
  })
})
