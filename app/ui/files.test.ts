import { describe, expect, it } from 'vitest'
import { fileName, readJson } from './files'

describe('files', () => {
  it('are named by what they hold, in letters every system knows', () => {
    expect(fileName('Blüten, zwei: “Größe” 3', 'json')).toBe('bluten-zwei-gro-e-3.json')
    expect(fileName('../../etc/passwd', 'recipe.json')).toBe('etc-passwd.recipe.json')
    expect(fileName('…', 'json')).toBe('nine-ripples.json')
    expect(fileName('x'.repeat(300), 'json').length).toBeLessThan(70)
  })

  it('that are no JSON are refused in words', () => {
    expect(readJson('{"a":[1]}')).toEqual({ a: [1] })
    expect(() => readJson('{"a":')).toThrow('This file is not whole, or not JSON.')
  })
})
