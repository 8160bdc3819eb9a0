import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { OFFERED_CLASSES, powderClass } from '../gypsum/powders'
import { SCHOOLS } from '../gypsum/schools'
import { solveMix } from '../gypsum/mix'
import { toWeigh } from './to-weigh'
import type { Plan } from './types'

const plan = (change: Partial<Plan>): Plan => ({ classId: 'casting-plaster', school: 'weighed', additions: [], ...change } as Plan)

describe('everything to weigh', () => {
  const additions = [
    { id: 'dry-pigment', share: 0.02, way: 'fold' }, { id: 'salt', share: 0.01 }, { id: 'silica-flour', share: 0.5 },
  ] as const
  const mix = {
    water: 0.7, powder: 1,
    additions: [{ id: 'dry-pigment', mass: 0.02 }, { id: 'salt', mass: 0.01 }, { id: 'silica-flour', mass: 0.5 }],
  } as const
  const order = (p: Plan) => toWeigh(p, mix).map(w => w.what === 'addition' ? w.id : w.what)
  it('in the water after the water, dry with the powder, folded in last', () => {
    expect(order(plan({ additions }))).toEqual(['water', 'salt', 'powder', 'silica-flour', 'dry-pigment'])
    expect(order(plan({ additions, school: 'powder-first' })))
      .toEqual(['powder', 'silica-flour', 'water', 'salt', 'dry-pigment'])
    // Nothing is folded into a closed bag: its colour goes in the usual way.
    expect(order(plan({ additions, school: 'bag' })).at(-1)).toBe('salt')
  })
  it('a powder sold mixed is told by its parts too: one to one', () => {
    const [, powder] = toWeigh(plan({ classId: 'investment-plaster' }), { ...mix, additions: [] })
    expect(powder).toMatchObject({ what: 'powder', split: { plaster: 0.5, filler: 0.5 } })
  })
  it('nothing is lost or counted twice, whatever the class and the way of mixing', () => {
    fc.assert(fc.property(
      fc.constantFrom(...OFFERED_CLASSES.map(p => p.id)), fc.constantFrom(...SCHOOLS.map(s => s.id)),
      fc.double({ min: 0.1, max: 20, noNaN: true }),
      (classId, school, amount) => {
        const made = solveMix(
          { powder: powderClass(classId), ratio: 0.7, waterTemperature: 20, additions }, { what: 'powder', amount },
        )
        const all = toWeigh(plan({ classId, school, additions }), made)
        const sum = all.reduce((kg, w) => kg + w.mass, 0)
        expect(sum).toBeCloseTo(made.water + made.powder + made.additions.reduce((kg, a) => kg + a.mass, 0), 9)
        expect(new Set(all.map(w => w.what === 'addition' ? w.id : w.what)).size).toBe(all.length)
      },
    ), { seed: 19, numRuns: 60 })
  })
})
