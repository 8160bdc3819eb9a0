import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ADDITIONS, additionKind, setEffect, type AdditionId } from '../../core/gypsum/additions'
import { solveMix } from '../../core/gypsum/mix'
import { OFFERED_CLASSES, powderClass } from '../../core/gypsum/powders'
import { settingProblem } from '../../core/setting/setting-mix'
import { centreMoments } from '../../core/setting/moments'

/** From the kitchen: factors on the time to set, with their ranges (from memory, or common practice). */
const effect = (id: AdditionId, percent: number) => setEffect({ id, share: percent / 100 })!

describe('what it does to the time to set', () => {
  it.each<[AdditionId, number, number]>([
    ['salt', 0.5, 0.71], ['salt', 1, 0.61], ['salt', 2, 0.57], ['salt', 5, 0.70], ['salt', 10, 0.93],
    ['sea-water', 100, 0.57], ['ground-gypsum', 1, 0.66], ['hard-water', 100, 0.95],
    ['citrate', 0.05, 1.8], ['citrate', 0.1, 2.5], ['citrate', 0.2, 4], ['borax', 0.1, 1.5], ['borax', 0.5, 3.5],
  ])('%s at %f %%: times %f', (id, percent, factor) => {
    expect(Math.abs(effect(id, percent).factor / factor - 1)).toBeLessThan(0.03)
  })
  it.each<[AdditionId, number, number, number]>([
    ['alum', 1, 0.4, 0.7], ['potassium-sulfate', 1, 0.4, 0.7], ['vinegar', 7, 1, 1.5], ['sugar', 1, 1, 1.5],
    ['white-glue', 5, 1, 1.5], ['milk', 100, 1.5, 4], ['tea', 100, 1, 3],
  ])('%s at %f %%: between %f and %f', (id, percent, low, high) => {
    const { factor } = effect(id, percent)
    expect(factor).toBeGreaterThanOrEqual(low)
    expect(factor).toBeLessThanOrEqual(high)
  })
  it('a range holds its middle, is wider the less it is known, and sayings may do nothing', () => {
    for (const { id, most } of ADDITIONS) {
      const e = setEffect({ id, share: most })
      if (!e) continue
      expect(e.low).toBeLessThanOrEqual(e.factor)
      expect(e.high).toBeGreaterThanOrEqual(e.factor)
      if (e.sure === 'saying') expect(Math.min(Math.abs(e.low - 1), Math.abs(e.high - 1))).toBeLessThan(0.02)
    }
    expect(setEffect({ id: 'sand', share: 1 })).toBeUndefined()
  })
})

const at = (id: AdditionId, share: number, classId: 'plaster-of-paris' = 'plaster-of-paris') => centreMoments({
  powder: powderClass(classId), ratio: { value: 0.7, low: 0.68, high: 0.72, basis: { kind: 'model', note: '' } },
  waterTemperature: 20, roomTemperature: 20, stir: { tool: 'hand', minutes: 2 }, section: 0.02, mould: 'silicone',
  additions: share > 0 ? [{ id, share }] : [], bagUncertain: false, openNotBefore: 0, fragile: false,
})

const exactly = (value: number) => ({ value, low: value, high: value, basis: { kind: 'model' as const, note: '' } })

describe('in the mix', () => {
  const mix = (id: AdditionId, share: number) => {
    const powder = powderClass('plaster-of-paris'), additions = [{ id, share }]
    return solveMix({ powder, ratio: 0.7, waterTemperature: 20, additions }, { what: 'powder', amount: 1 })
  }
  it('vinegar and glue bring their water, which thins it and has to dry; what replaces the water adds nothing', () => {
    const plain = mix('sand', 0), sour = mix('vinegar', 0.1), glued = mix('white-glue', 0.06)
    expect(sour.effectiveRatio).toBeCloseTo(0.795, 6)
    expect(sour.freeWater - plain.freeWater).toBeCloseTo(0.095, 6)
    expect(glued.dryMass - plain.dryMass).toBeCloseTo(0.03, 6)
    for (const id of ['sea-water', 'milk', 'tea'] as const) {
      expect(mix(id, 1).slurry).toBeCloseTo(plain.slurry, 9)
      expect(mix(id, 1).additions).toEqual([])
    }
    expect(mix('milk', 1).effectiveRatio).toBeLessThan(plain.effectiveRatio)
  })
  it('a liquid colour and a paint bring six tenths of themselves as water, which counts', () => {
    const plain = mix('sand', 0)
    for (const [id, share] of [['liquid-colour', 0.05], ['liquid-paint', 0.1]] as const) {
      const made = mix(id, share)
      expect(made.freeWater - plain.freeWater).toBeCloseTo(0.6 * share, 6)
      expect(made.effectiveRatio).toBeGreaterThan(0.7 + 0.3 * share)
      expect(made.dryMass - plain.dryMass).toBeCloseTo(0.4 * share, 6)
      expect(at(id, share).dryStrength).toBeLessThan(at(id, 0).dryStrength)
    }
    expect(setEffect({ id: 'liquid-paint', share: 0.1 })!.factor).toBeGreaterThan(1.1)
    expect(setEffect({ id: 'liquid-colour', share: 0.05 })).toBeUndefined()
  })
  it('washing-up liquid foams: the cast loses a fifth to a half of its strength', () => {
    const lost = 1 - at('washing-up', 0.001).dryStrength / at('washing-up', 0).dryStrength
    expect(lost).toBeGreaterThan(0.2)
    expect(lost).toBeLessThan(0.5)
  })
  it('the gloss moves as the factor says, as long as heat does not race it', () => {
    const plain = at('salt', 0).glossGone
    for (const [id, share] of [['sea-water', 1], ['citrate', 0.001], ['milk', 1]] as const) {
      const moved = at(id, share).glossGone / plain, { low, high } = setEffect({ id, share })!
      expect(moved).toBeGreaterThan(low * 0.85)
      expect(moved).toBeLessThan(high * 1.05)
    }
  })
  it('no figure is ever none: every class with every addition at every dose that is taken', () => {
    fc.assert(fc.property(
      fc.constantFrom(...OFFERED_CLASSES), fc.constantFrom(...ADDITIONS), fc.double({ min: 0, max: 1, noNaN: true }),
      (powder, kind, part) => {
        const share = kind.instead ? 1 : part * kind.most
        const input = {
          powder, ratio: exactly(powder.ratio.recommended),
          waterTemperature: 20, roomTemperature: 20, stir: { tool: 'hand' as const, minutes: 2 }, section: 0.02,
          mould: 'silicone' as const, additions: [{ id: kind.id, share }], bagUncertain: false, openNotBefore: 0,
          fragile: false,
        }
        if (settingProblem({ ...input, ratio: input.ratio.value })) return
        for (const [key, value] of Object.entries(centreMoments(input)))
          expect(value >= -1e-9, `${kind.id} ${key} ${value}`).toBe(true)
        expect(additionKind(kind.id).name).not.toBe('')
      },
    ), { numRuns: 120, seed: 10 })
  }, 120_000)
})
