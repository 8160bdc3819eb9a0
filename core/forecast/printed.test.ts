import { describe, expect, it } from 'vitest'
import { powderClass } from '../gypsum/powders'
import { MODEL_VERSION } from '../setting/moments'
import { cupExpected } from './cup-test'
import { bagShift, taughtBag } from './observations'
import { taughtByPack } from './printed'

const bag = { id: 'b', name: 'Kit', classId: 'casting-plaster' as const, uncertain: false }
const expected = cupExpected('casting-plaster', 21)

describe('what is printed on a bag', () => {
  it('says nothing of its speed where no time is printed, and its class where the time is that of the class', () => {
    expect(taughtByPack('casting-plaster', { ratio: 0.67 })).toBeUndefined()
    expect(taughtByPack('casting-plaster', { sets: expected })!.mean).toBeCloseTo(0, 6)
    const { ratio } = powderClass('casting-plaster')
    // The same time at a thinner mix is a faster powder.
    expect(taughtByPack('casting-plaster', { sets: expected, ratio: ratio.high })!.mean).toBeGreaterThan(0.05)
  })

  it('outranks the class, and is outranked by what its own pours taught', () => {
    const slow = taughtBag({ ...bag, printed: { sets: 2 * expected } }, [])
    // Twice as long is ln 2 slower; a fifth of doubt against the class's third leaves most of it.
    expect(slow.rate!.mean).toBeLessThan(-0.3)
    expect(slow.rate!.mean).toBeGreaterThan(-Math.LN2)
    expect(slow.rate!.batches).toBe(0)
    expect(bagShift(slow)).toBeUndefined()
    const own = Array.from({ length: 6 }, () => ({ mean: 0.3, sd: 0.08, model: MODEL_VERSION }))
    const marked = taughtBag({ ...bag, printed: { sets: 2 * expected } }, own)
    expect(marked.rate!.mean).toBeGreaterThan(0.2)
    expect(marked.rate!.batches).toBe(6)
  })

  it('a time to pour and a time to set are put together, each by how well it is known', () => {
    const both = taughtByPack('casting-plaster', { sets: expected, working: 60 })!
    const sets = taughtByPack('casting-plaster', { sets: expected })!, working = taughtByPack('casting-plaster', { working: 60 })!
    expect(both.sd).toBeLessThan(sets.sd)
    expect(both.mean).toBeGreaterThan(sets.mean)
    expect(both.mean).toBeLessThan(working.mean)
    expect(working.mean - both.mean).toBeGreaterThan(both.mean - sets.mean)
  })
})
