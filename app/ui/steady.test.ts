import { describe, expect, it } from 'vitest'
import { ref } from 'vue'
import { steady, steadyEach, steadyList } from './steady'

describe('what is worked out anew and says the same', () => {
  it('stays the same thing', () => {
    const n = ref(1), told = steady(() => ({ even: n.value % 2 === 0 })), before = told.value
    n.value = 3
    expect(told.value).toBe(before)
    n.value = 4
    expect(told.value).toEqual({ even: true })
  })

  it('as a list of the same things too, and as another once one of them is another', () => {
    const [bowl, tile, hand] = [{ name: 'Bowl' }, { name: 'Tile' }, { name: 'Hand' }]
    const n = ref(1), told = steadyList(() => n.value < 3 ? [bowl, tile] : [bowl, hand]), before = told.value
    n.value = 2
    expect(told.value).toBe(before)
    n.value = 3
    expect(told.value).toEqual([bowl, hand])
  })

  it('does so one by one in a list, which may grow and shrink', () => {
    const n = ref(2), told = steadyEach(() => ['poured', 'opened', 'dry'].slice(0, n.value).map(word => ({ word })))
    const [poured, opened] = told.value
    n.value = 3
    expect(told.value[0]).toBe(poured)
    expect(told.value[1]).toBe(opened)
    expect(told.value[2]).toEqual({ word: 'dry' })
    n.value = 1
    expect(told.value).toEqual([{ word: 'poured' }])
    expect(told.value[0]).toBe(poured)
  })
})
