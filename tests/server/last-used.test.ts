import { describe, expect, it } from 'vitest'
import { LastUsed } from '../../server/last-used'

describe('what was used last', () => {
  it('stays; what was not looked at the longest goes first', () => {
    const kept = new LastUsed<number>(2)
    kept.set('a', 1)
    kept.set('b', 2)
    expect(kept.get('a')).toBe(1)
    kept.set('c', 3)
    expect([kept.get('a'), kept.get('b'), kept.get('c')]).toEqual([1, undefined, 3])
    kept.forget('a')
    expect(kept.get('a')).toBeUndefined()
  })
})
