import { describe, expect, it } from 'vitest'
import { MOULD_MATERIALS, type MouldMaterial } from '../setting/body'
import { openingOf } from './opening'
import { OPEN_STEP_WORDS, OPEN_STOP_WORDS } from './words'

const materials = Object.keys(MOULD_MATERIALS) as MouldMaterial[]

describe('how a mould is opened', () => {
  it('every material and form, whole or in parts, has two to four steps and a place to stop', () => {
    for (const material of materials) for (const halves of [1, 2]) for (const fragile of [false, true]) {
      const { steps, stop } = openingOf({ material, halves, fragile })
      expect(steps.length, material).toBeGreaterThanOrEqual(2)
      expect(steps.length, material).toBeLessThanOrEqual(4)
      expect(new Set(steps).size).toBe(steps.length)
      for (const words of [...steps.map(s => OPEN_STEP_WORDS[s]), OPEN_STOP_WORDS[stop]]) expect(words).toMatch(/^[A-Z].*\.$/)
    }
  })
  it('as casters do it: a skin inside out, clay from its edge, a print with its soil, parts straight apart', () => {
    expect(openingOf({ material: 'latex' }).steps[1]).toBe('peel-inside-out')
    expect(openingOf({ material: 'silicone', form: 'sleeve' }).steps[0]).toBe('talc-outside')
    expect(openingOf({ material: 'silicone', form: 'tile' }).steps[0]).toBe('break-seal')
    expect(openingOf({ material: 'plastic', halves: 2 }).steps.at(-1)).toBe('pull-straight')
    expect(openingOf({ material: 'clay' }).steps[0]).toBe('roll-clay')
    expect(openingOf({ material: 'ground' })).toMatchObject({ stop: 'no-second-one' })
    expect(openingOf({ material: 'silicone', fragile: true }).steps).toContain('thin-parts-last')
  })
})
