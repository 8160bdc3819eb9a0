import { describe, expect, it } from 'vitest'
import { ADDITIONS } from './additions'
import { SCHOOLS } from './schools'
import { byWayIn, foldsIn, wayIn, waysIn } from './ways-in'

describe('how additions go in', () => {
  it('a colour has a choice, dry or wet; what takes the place of the water has none', () => {
    expect(waysIn('dry-pigment', 'weighed')).toEqual(['powder', 'water', 'fold'])
    expect(waysIn('liquid-paint', 'weighed')).toEqual(['water', 'fold'])
    expect(waysIn('dry-pigment', 'bag')).toEqual(['powder', 'water', 'bag'])
    expect([waysIn('salt', 'weighed'), waysIn('sand', 'weighed'), waysIn('milk', 'weighed')]).toEqual([['water'], ['powder'], []])
    for (const { id } of SCHOOLS)
      for (const a of ADDITIONS) expect(waysIn(a.id, id).length > 0).toBe(!a.instead)
  })

  it('a way that the school does not have falls back to the usual one', () => {
    expect(wayIn({ id: 'dry-pigment', share: 0.02, way: 'bag' }, 'weighed')).toBe('powder')
    expect(wayIn({ id: 'dry-pigment', share: 0.02, way: 'bag' }, 'bag')).toBe('bag')
    expect(wayIn({ id: 'dry-pigment', share: 0.02, way: 'fold' }, 'bag')).toBe('powder')
    expect(foldsIn([{ id: 'dry-pigment', share: 0.02, way: 'fold' }], 'weighed')).toBe(true)
    expect(foldsIn([{ id: 'dry-pigment', share: 0, way: 'fold' }], 'weighed')).toBe(false)
  })

  it('what is added is told in the order in which it goes in', () => {
    const additions = [{ id: 'dry-pigment', share: 0.02, way: 'fold' }, { id: 'salt', share: 0.01 }, { id: 'sand', share: 0.1 }] as const
    const added = additions.map(a => ({ id: a.id, mass: a.share }))
    expect(byWayIn(added, { additions, school: 'weighed' }).map(w => [w.way, w.items.map(i => i.id)])).toEqual([
      ['powder', ['sand']], ['water', ['salt']], ['fold', ['dry-pigment']],
    ])
  })
})
