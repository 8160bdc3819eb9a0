import { describe, expect, it } from 'vitest'
import { profileOf } from '~core/drawing/profile'
import type { BatchFill, MouldFacts } from '~core/plan/types'
import { CUT, layoutCut } from './cut'

const mould = (width: number, volume: number): MouldFacts => ({
  id: `${width}`,
  name: 'A mould',
  material: 'silicone',
  volume: { value: volume, low: volume, high: volume },
  mouth: { shape: 'round', width, length: width },
  wall: 0.008,
  section: 0.02,
  fragile: false,
})
const fill = (m: MouldFacts, copies = 1): BatchFill => ({ mould: m, copies, first: 1 })
const pail = { bottom: 0.212, top: 0.262, height: 0.245 }

describe('the cut drawing', () => {
  it('draws bucket and moulds to one scale', () => {
    const { scale, table, bucket, moulds } = layoutCut([fill(mould(0.092, 412e-6), 3)], pail, {
      water: 0.06,
      final: 0.11,
      safe: 0.21,
    })
    expect(bucket!.bottom * 2 / scale).toBeCloseTo(0.212, 9)
    expect(moulds[0]!.width / scale).toBeCloseTo(0.092, 9)
    expect(moulds[0]!.depth / scale).toBeCloseTo(profileOf(mould(0.092, 412e-6)).depth, 9)
    expect(moulds[0]!.inside[0]).toEqual({ x: 0, y: 0 })
    expect(moulds[0]!.inside.at(-1)!.x / scale).toBeCloseTo(0.092, 9)
    for (const level of bucket!.levels) expect((table - level.y) / scale).toBeCloseTo(level.height, 9)
  })

  it('stays inside its frame, from bell-pulls to slabs, and says how many kinds it leaves out', () => {
    for (const sizes of [[0.034], [0.36], [0.034, 0.42], [0.05, 0.06, 0.07, 0.08, 0.09, 0.1]]) {
      const cut = layoutCut(sizes.map(s => fill(mould(s, s ** 3 / 4))), pail, { water: 0.01, final: 0.02, safe: 0.21 })
      const last = cut.moulds.at(-1)!
      expect(last.x + last.width + 2 * last.wall).toBeLessThanOrEqual(CUT.width)
      expect(cut.hidden).toBe(Math.max(0, sizes.length - CUT.most))
    }
  })

  it('labels of close levels do not touch', () => {
    const { levels } = layoutCut([fill(mould(0.09, 1e-4))], pail, { water: 0.004, final: 0.009, safe: 0.21 }).bucket!
    expect(Math.min(...levels.map(l => l.labelY))).toBeGreaterThan(18)
    const ys = levels.map(l => l.labelY).sort((a, b) => a - b)
    for (let i = 1; i < ys.length; i++) expect(ys[i]! - ys[i - 1]!).toBeGreaterThanOrEqual(CUT.label - 1e-9)
  })
})
