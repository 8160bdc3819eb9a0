import { describe, expect, it } from 'vitest'
import { layerVolumes, shellVolume, type Core } from '../../core/mould/gauge/shells'
import { jacketLayers, jacketVolume } from '../../core/mould/mesh/jacket'
import { measureMesh } from '../../core/mould/mesh/mesh'
import { box, positionsOf } from '../../core/mould/mesh/solids'

/** Steiner 1840, first principles; litres were worked out once by code that shares nothing with the product. */
const within = (value: number, wanted: number, part = 0.0005) => expect(Math.abs(value / wanted - 1)).toBeLessThan(part)
const litres = (core: Core, each: number, layers: number) => layerVolumes(core, each / 1000, layers).map(v => 1000 * v)

const BOX: Core = { kind: 'box', width: 0.2, length: 0.15, height: 0.1 }
const CYLINDER: Core = { kind: 'cylinder', across: 0.1, height: 0.12 }

describe('each layer takes more than the one below it', () => {
  it.each([
    ['a box 200 × 150 × 100, all round, three of 10 mm', BOX, 10, [1.4456, 1.7534, 2.0864]],
    ['the same on a table', { ...BOX, onTable: true }, 10, [1.0885, 1.2738, 1.4718]],
    ['a cylinder of 50 and 120, all round, two of 10 mm', CYLINDER, 10, [0.6253, 0.8245]],
    ['the same on a table', { ...CYLINDER, onTable: true }, 10, [0.5200, 0.6573]],
    ['a ball of 50', { kind: 'ball', across: 0.1 }, 10, [0.3812, 0.5320]],
    ['a dome of 80, three of 20 mm', { kind: 'dome', across: 0.16 }, 20, [1.0221, 1.5247, 2.1279]],
  ] as const)('%s', (_, core, each, wanted) => {
    litres(core, each, wanted.length).forEach((v, k) => within(v, wanted[k]!))
  })
  it('an area as curved as a ball is that part of the ball, whatever the layers; a rim adds a quarter round', () => {
    const ball: Core = { kind: 'ball', across: 0.1 }, area = 4 * Math.PI * 0.05 ** 2
    within(shellVolume({ kind: 'area', area, radius: 0.05 }, 0.03), shellVolume(ball, 0.03), 1e-9)
    const flat = shellVolume({ kind: 'area', area: 0.03 }, 0.01)
    expect(flat).toBeCloseTo(3e-4, 12)
    within(shellVolume({ kind: 'area', area: 0.03, rim: 0.7 }, 0.01) - flat, Math.PI / 4 * 0.7 * 1e-4, 1e-9)
  })
})

describe('a jacket around a model, by distance', () => {
  const solid = (a: number, b: number, c: number) => ({ positions: positionsOf(box([0, 0, 0], [a, b, c])) })
  it('agrees with the closed form for a box, all round and on a table, within half a per cent', () => {
    const model = solid(100, 80, 60), { volume, low } = measureMesh(model.positions)
    const core = { kind: 'box', width: 0.1, length: 0.08, height: 0.06 } as const
    within(jacketVolume(model, 10, volume).volume / 1e6, 1000 * shellVolume(core, 0.01), 0.005)
    const standing = 1000 * shellVolume({ ...core, onTable: true }, 0.01)
    within(jacketVolume(model, 10, volume, low[2]).volume / 1e6, standing, 0.005)
  })
  it('layer by layer it grows as the closed form does, and says how far it is', () => {
    const model = solid(200, 150, 100), { volume } = measureMesh(model.positions)
    const work = jacketLayers(model, 10, 3, volume), told: number[] = []
    let step = work.next()
    for (; !step.done; step = work.next()) told.push(step.value)
    step.value.layers.forEach((v, k) => within(v / 1e6, [1.4456, 1.7534, 2.0864][k]!, 0.006))
    expect(told).toEqual([1 / 3, 2 / 3, 1])
    // On a table by any of its axes: the box that lies on its side is another one.
    for (const [up, core] of [
      [[0, 0, 1], { width: 0.2, length: 0.15, height: 0.1 }],
      [[-1, 0, 0], { width: 0.15, length: 0.1, height: 0.2 }],
      [[0, 1, 0], { width: 0.2, length: 0.1, height: 0.15 }],
    ] as const) {
      const stood = jacketLayers(model, 10, 1, volume, up)
      let last = stood.next()
      while (!last.done) last = stood.next()
      within(last.value.layers[0]! / 1e6, 1000 * shellVolume({ kind: 'box', ...core, onTable: true }, 0.01), 0.006)
    }
  })
  it('an inner corner takes less than faces and edges say: an L of 100 × 100 × 60 with arms of 40 grows to 0.8363 l', () => {
    const outline = [[0, 0], [100, 0], [100, 40], [40, 40], [40, 100], [0, 100]] as const
    const model = { positions: prism(outline, 60) }, { volume } = measureMesh(model.positions)
    within(volume, 60 * 6400, 1e-6)
    within((jacketVolume(model, 10, volume).volume + volume) / 1e6, 0.8363, 0.002)
  })
})

/** A prism over an outline that a fan from its first corner fills. */
function prism(outline: readonly (readonly [number, number])[], height: number): Float32Array {
  const triangles: number[] = [], n = outline.length
  // Corner 3 is the inner one: from it every other is in sight.
  const seen = Array.from({ length: n }, (_, i) => outline[(i + 3) % n]!)
  for (let i = 1; i < n - 1; i++) {
    const [a, b, c] = [seen[0]!, seen[i]!, seen[i + 1]!]
    triangles.push(...a, height, ...b, height, ...c, height, ...a, 0, ...c, 0, ...b, 0)
  }
  outline.forEach(([x, y], i) => {
    const [u, v] = outline[(i + 1) % n]!
    triangles.push(x, y, 0, u, v, 0, u, v, height, x, y, 0, u, v, height, x, y, height)
  })
  return Float32Array.from(triangles)
}
