import { describe, expect, it } from 'vitest'
import { thingsOf, workOutDoor } from '../door/door'
import { KINDS } from '../door/kinds'
import { layoutTape } from '../drawing/tape'
import { forecasting } from '../setting/moments'
import { tapeOfPlan } from './tape'

describe('the tape of a plan', () => {
  const things = thingsOf({
    kind: 'tile', amount: { by: 'measures', measures: KINDS.tile.sizes.small }, count: 60, classId: 'plaster-of-paris',
    way: 'weighed', bucket: 'tub',
  }, { plan: '', mould: '', bucket: size => size, bag: '' })
  if (typeof things === 'string') throw new Error(things)
  const result = workOutDoor(things), { steps } = result.batches[0]!
  it('has the acts of the first bucket, one after the other, and opens after it is left alone', () => {
    const tape = tapeOfPlan('weighed', result)!
    expect(tape.acts.map(a => [a.id, a.end])).toEqual([
      ['sift', steps.sifted.value], ['soak', steps.soaked.value], ['stir', steps.stirred.value], ['fill', steps.poured.value],
    ])
    expect(tape.open!.from).toBeGreaterThan(steps.poured.value)
    expect(tapeOfPlan('bag', result)!.acts.map(a => a.id)).toContain('knead')
    expect(tapeOfPlan('weighed', { batches: [] })).toBeUndefined()
  })
  it('hatches what may be too late from its early side on, where custom does not pour on regardless', () => {
    const work = forecasting(result.setting!.input)
    let step = work.next()
    while (!step.done) step = work.next()
    const { moments } = step.value, troubled = (early: boolean) =>
      layoutTape(tapeOfPlan('weighed', result, moments, early)!, 600, 3600).trouble?.width ?? 0
    expect(moments.pourBy.low).toBeLessThan(moments.pourBy.value)
    expect(steps.poured.value).toBeGreaterThan(moments.pourBy.low)
    expect(troubled(true)).toBeGreaterThan(troubled(false))
  })
})
