import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holdable } from './text'

describe('what can be kept of a text', () => {
  it('is all of it but what nobody can see and no database holds', () => {
    expect(holdable({ a: ['crack\u0000ed', 'tw\no\tlines\u001B'], n: 3, no: null })).toEqual({
      a: ['cracked', 'tw\no\tlines'],
      n: 3,
      no: null,
    })
    expect(holdable('a cut \uD83D letter, a whole 😀')).toBe('a cut  letter, a whole 😀')
  })

  it('is whole text whatever was typed, and stays as it is the second time', () => {
    fc.assert(fc.property(fc.string({ unit: 'binary' }), fc.string(), (odd, plain) => {
      const held = holdable(`${odd}\uD800${plain}`)
      expect(encodeURIComponent(held)).toBeDefined()
      expect(held).not.toContain('\u0000')
      expect(holdable(held)).toBe(held)
    }))
  })
})
