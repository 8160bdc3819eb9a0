import { describe, expect, it } from 'vitest'
import { ball, box, positionsOf, turned } from '../mould/mesh/solids'
import { judged } from '../mould/mesh/model'
import { MOST_POINTS, type Line } from './form-ids'
import { likenessOfModel, likenessOfOutlines } from './likeness'
import { lookOf, profileOf, volumeBelow } from './profile'

const areaOf = (line: Line) => Math.abs(line.reduce((twice, [x, y], i) => {
  const [p, q] = line[(i + 1) % line.length]!
  return twice + x * q - p * y
}, 0)) / 2
const count = (lines: readonly Line[]) => lines.reduce((n, l) => n + l.length, 0)
const UP = [0, 0, 1] as const

/** A knob of 40 across with a neck of 16, poured through its top, which is 24 across. */
const KNOB = turned([[0, 0], [20, 10], [8, 40], [12, 50]], 96)

describe('how a piece looks, from its model', () => {
  it('a plate is a disc from above and shallow in the cut, and turned', () => {
    const plate = likenessOfModel(positionsOf(turned([[50, 0], [50, 10]], 96)), UP)!
    expect(plate).toMatchObject({ turned: true, stands: false, lines: [] })
    expect(plate.edge).toHaveLength(1)
    expect(areaOf(plate.edge[0]!) / (Math.PI / 4 * 96 ** 2)).toBeCloseTo(1, 1.7)
    // A tenth as deep as it is wide.
    expect(Math.max(...plate.cut!.map(([, z]) => z))).toBeCloseTo(0.1, 1.9)
  })
  it('a tall piece is seen from the side, its neck in the outline and in the cut of its mould', () => {
    const knob = likenessOfModel(positionsOf(KNOB), UP)!
    expect(knob).toMatchObject({ turned: true, stands: true })
    // By hand: the outline of a side is the turned profile itself, 40 wide and 50 high.
    const profile = (20 * 10 / 2 + 28 * 30 / 2 + 20 * 10 / 2) * 2
    expect(areaOf(knob.edge[0]!) / (profile / 2000 * 96 ** 2)).toBeCloseTo(1, 1.5)
    // From lip to lip: in by a fifth at the neck, out again below it.
    const lip = Math.abs(knob.cut![0]![0]), half = (z: number) =>
      Math.min(...knob.cut!.filter(p => Math.abs(p[1] - z) < 0.04 && p[0] > 0).map(([x]) => x))
    expect(lip).toBeCloseTo(12 / 20, 1)
    expect(half(10 / 40)).toBeCloseTo(8 / 20, 1)
    expect(Math.max(...knob.cut!.map(([x]) => x))).toBeCloseTo(1, 1)
  })
  it('what its mould holds is drawn as large as it is, and not as a guess', () => {
    const { measures, positions } = judged(positionsOf(KNOB))
    const mould = {
      looks: likenessOfModel(positions, UP)!,
      mouth: { shape: 'rectangular', width: 0.04, length: 0.04 } as const,
      volume: { value: measures.volume * 1e-9 },
    }
    const profile = profileOf(mould)
    expect(profile.measured).toBe(true)
    expect(volumeBelow(profile, 0) / mould.volume.value).toBeCloseTo(1, 6)
    // Hardly stretched for it: the section is its own. 50 mm deep.
    expect(profile.depth).toBeCloseTo(0.05, 2.3)
    expect(lookOf({ ...mould, form: 'heart' }).edge, 'somebody chose').not.toBe(lookOf(mould).edge)
  })
  it('lines lie on a raised part, and a forest of parts keeps to its points', () => {
    const dome = likenessOfModel(positionsOf([...box([-50, -50, 0], [50, 50, 10]), ...ball(20, 20, 28)]), UP)!
    expect(dome.lines.length).toBeGreaterThan(0)
    for (const [x, y] of dome.lines.flat()) expect(Math.hypot(x - 50, y - 50)).toBeLessThan(24)
    const forest = Array.from({ length: 100 }, (_, k) =>
      turned([[3, -8], [3, 0]], 12, [10 * (k % 10), 10 * Math.floor(k / 10), 0])).flat()
    const many = likenessOfModel(positionsOf(forest), UP)!
    expect(count(many.edge)).toBeLessThanOrEqual(MOST_POINTS.edge)
    expect(count(many.lines)).toBeLessThanOrEqual(MOST_POINTS.lines)
    expect(likenessOfModel(new Float32Array(0), UP)).toBeUndefined()
  })
})

describe('how a print looks, from what was traced in its photo', () => {
  // 30 by 10, turned by 40 degrees, with a cleat across its middle.
  const [c, s] = [Math.cos(0.7), Math.sin(0.7)]
  const laid = (all: readonly (readonly [number, number])[]) =>
    all.map(([x, y]) => ({ x: x * c - y * s, y: x * s + y * c }))
  const sole = laid([[0, 0], [30, 0], [30, 10], [0, 10]]), cleat = laid([[14, 2], [16, 2], [16, 8], [14, 8]])
  it('the largest outline is its edge, upright, the others lie on it where they are', () => {
    const looks = likenessOfOutlines([cleat, sole], p => p)!
    expect(looks.edge).toHaveLength(1)
    expect(looks.lines).toHaveLength(1)
    const ys = looks.lines[0]!.map(([, y]) => y)
    expect((Math.min(...ys) + Math.max(...ys)) / 2).toBeCloseTo(50, 0)
    // Upright, a rectangle fills its square.
    expect(areaOf(looks.edge[0]!) / 96 ** 2).toBeCloseTo(1, 2)
  })
  it('nothing traced, or a line of no area, is no picture', () => {
    expect(likenessOfOutlines([], p => p)).toBeUndefined()
    expect(likenessOfOutlines([laid([[0, 0], [1, 0]])], p => p)).toBeUndefined()
    expect(likenessOfOutlines([[{ x: 1, y: 1 }, { x: 1, y: 1 }, { x: 1, y: 1 }]], p => p)).toBeUndefined()
  })
})
