import { describe, expect, it } from 'vitest'
import { saidBetween } from './hold'

describe('what is spoken while a hand is in the impression', () => {
  it('each once as it falls due, the end too; after a sleep only what is still true', () => {
    expect(saidBetween(301, 300)).toContain('Five minutes more')
    expect(saidBetween(300, 299)).toBeUndefined()
    expect(saidBetween(1, 0)).toMatch(/^Now/)
    expect(saidBetween(700, -20)).toMatch(/^Now/)
    expect(saidBetween(700, 200)).toContain('Five minutes more')
  })
})
