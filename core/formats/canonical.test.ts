import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { canonicalJson } from './canonical'

/** The same value with the keys of its objects the other way round. */
function turned(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(turned)
  return value !== null && typeof value === 'object'
    ? Object.fromEntries(Object.entries(value).reverse().map(([k, v]) => [k, turned(v)]))
    : value
}

describe('canonical JSON', () => {
  it('is the same whatever the order of keys, and reads back as the same value', () => {
    fc.assert(fc.property(fc.jsonValue(), (value) => {
      expect(canonicalJson(turned(value))).toBe(canonicalJson(value))
      expect(JSON.parse(canonicalJson(value))).toEqual(JSON.parse(JSON.stringify(value)))
    }))
    expect(canonicalJson({ b: 1, a: { d: [{ z: 1, y: 2 }], c: undefined } })).toBe('{"a":{"d":[{"y":2,"z":1}]},"b":1}')
  })
})
