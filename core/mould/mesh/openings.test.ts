import { describe, expect, it } from 'vitest'
import { extentAlong, holeOnTop, openOnTop } from './openings'
import { measureMesh } from './mesh'
import { box, turned, type Triangle } from './solids'
import type { Vector } from './spans'

const positionsOf = (triangles: readonly Triangle[]) => new Float32Array(triangles.flat(2))
const near = (v: Vector) => v.map(x => expect.closeTo(x, 4) as number)

describe('where a model is poured', () => {
  const slab = positionsOf(box([0, 0, 0], [40, 20, 10])), slabSize = measureMesh(slab)
  // A cone of radius 30 and height 50 that stands on its base.
  const cone = positionsOf(turned([[30, 0], [0, 50]], 64)), coneSize = measureMesh(cone)

  it('a box reaches to its face along each way, and the middle of what reaches that far is the middle of the face', () => {
    expect(extentAlong(slab, slabSize, [0, 0, 1])).toMatchObject({ most: 10, at: near([20, 10, 10]) })
    expect(extentAlong(slab, slabSize, [-1, 0, 0])).toMatchObject({ most: expect.closeTo(0, 9), at: near([0, 10, 5]) })
    const lean: Vector = [Math.SQRT1_2, 0, Math.SQRT1_2]
    expect(extentAlong(slab, slabSize, lean)).toMatchObject({
      most: expect.closeTo(50 * Math.SQRT1_2, 4),
      at: near([40, 10, 10]),
    })
  })

  it('open on top is a disc over the whole model at its highest level, which takes nothing that lies lower', () => {
    const half = Math.hypot(40, 20, 10) / 2
    expect(openOnTop(slab, slabSize, [0, 0, 1])).toEqual({
      at: near([20, 10, 10]),
      radius: half,
      out: [0, 0, 1],
      reach: 0,
    })
    expect(openOnTop(slab, slabSize, [0, 0, -1]).at).toEqual(near([20, 10, 0]))
  })

  it('a hole stands at the tip of a cone, and in the middle of its base when it is turned over', () => {
    expect(holeOnTop(cone, coneSize, [0, 0, 1], 3)).toEqual({ at: near([0, 0, 50]), radius: 3, out: [0, 0, 1] })
    expect(holeOnTop(cone, coneSize, [0, 0, -1], 3).at).toEqual(near([0, 0, 0]))
  })
})
