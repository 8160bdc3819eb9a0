import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { waterAdviceWords } from '../plan/words'
import { ADDITIONS } from '../gypsum/additions'
import { CAST_SHAPES, MOULD_MATERIALS, SURROUNDINGS } from '../setting/body'
import { soakAdvice, stirAdvice, waterAdvice } from '../plan/choices'
import { POWDER_CLASSES, powderClass } from '../gypsum/powders'
import { DRIVING } from '../setting/flow'
import { STIR_TOOLS } from '../gypsum/stirring'
import { leversMoved, whatChanged } from './changes'
import { labDrying, labFacts } from './facts'
import { labInput, mixOfPlan, usualMix, type LabMix } from './mix'
import { labRemarks } from './remarks'
import { changeWords, factNote, labRefusalWords, labRemarkWords } from './words'
import { centreMoments, forecast } from '../setting/moments'
import { workOutPlan } from '../plan/plan'
import type { MouldFacts, Plan } from '../plan/types'

const keys = <T extends string>(record: Readonly<Record<T, unknown>>) => fc.constantFrom(...Object.keys(record) as T[])
const usual = usualMix('plaster-of-paris')
const worked = (mix: LabMix) => centreMoments(labInput(mix))
const said = (part: Partial<LabMix>) =>
  changeWords(whatChanged(usual, { ...usual, ...part }, worked(usual), worked({ ...usual, ...part })))

describe('the lab', () => {
  it('whatever is moved, a mix is either refused in words or worked out in finite numbers', () => {
    const any: fc.Arbitrary<LabMix> = fc.record({
      classId: fc.constantFrom(...POWDER_CLASSES.map(p => p.id)),
      ratio: fc.double({ min: 0.05, max: 3, noNaN: true }),
      waterTemperature: fc.double({ min: -20, max: 110, noNaN: true }),
      roomTemperature: fc.double({ min: -30, max: 60, noNaN: true }),
      soak: fc.double({ min: 0, max: 7200, noNaN: true }),
      stir: fc.record({ tool: keys(STIR_TOOLS), minutes: fc.double({ min: 0, max: 60, noNaN: true }) }),
      additions: fc.uniqueArray(
        fc.record({
          id: fc.constantFrom(...ADDITIONS.map(a => a.id)),
          share: fc.double({ min: 0, max: 2, noNaN: true }),
        }),
        { maxLength: 3, selector: a => a.id },
      ),
      dirt: fc.double({ min: 0, max: 0.2, noNaN: true }),
      section: fc.double({ min: 0.001, max: 1, noNaN: true }),
      mould: keys(MOULD_MATERIALS),
      shape: keys(CAST_SHAPES),
      behind: keys(SURROUNDINGS),
      driving: keys(DRIVING),
    })
    fc.assert(fc.property(any, (mix) => {
      const { refusal, remarks } = labRemarks(mix)
      for (const words of [refusal ? labRefusalWords(refusal) : '', ...remarks.map(r => labRemarkWords(r))])
        expect(words).not.toMatch(/NaN|undefined|Infinity/)
      if (refusal) return
      for (const f of labFacts(mix, worked(mix))) expect([f.id, f.value, factNote(f)]).not.toContain(NaN)
    }), { numRuns: 150 })
  })

  it('says what was moved and what it does, the largest first, and nothing of what does not matter', () => {
    expect(said({})).toBe('Nothing is changed yet.')
    expect(said({ ratio: 0.8 })).toMatch(/^80 of water instead of 70: .*(\d+ % weaker when dry)/)
    expect(said({ waterTemperature: 8 })).toMatch(/^Water at 8 °C: .*sets .* later/)
    expect(said({ additions: [{ id: 'potassium-sulfate', share: 0.01 }] })).toMatch(
      /^1 % potassium sulfate: .*(grows 35 % less|sets .* sooner)/,
    )
    expect(said({ driving: 'none' })).toMatch(/^Left alone: bubbles up to [\d.]+ mm stay in\.$/)
    expect(said({ section: 0.026 })).toBe('26 mm thick: no difference worth a word.')
    expect(
      leversMoved(usual, {
        ...usual,
        dirt: 0.01,
        mould: 'wood',
        shape: 'ball',
        behind: 'wind',
        soak: 60,
        roomTemperature: 10,
      }),
    ).toHaveLength(6)
  })

  it('refuses what cannot pour or set, and says when it leaves what was checked', () => {
    const refused = (part: Partial<LabMix>) => labRemarks({ ...usual, ...part }).refusal!
    expect(refused({ ratio: 0.1 })).toMatchObject({ code: 'too-little-water', range: { low: 0.6, high: 0.9 } })
    expect(labRefusalWords(refused({ ratio: 0.1 }))).toMatch(/^Too little water: this powder binds 1\d/)
    expect(refused({ ratio: 0.4 })).toMatchObject({ code: 'jams', additions: false })
    expect(refused({ waterTemperature: -5 })).toEqual({ code: 'no-liquid-water' })
    // Out of all reason: its sentence, and no code of the model's.
    expect(labRefusalWords(refused({ waterTemperature: -60 }))).toMatch(/^[A-Z].* .*\.$/)
    expect(labRemarks(usual)).toEqual({ remarks: [] })
    const far = labRemarks({
      ...usual,
      ratio: 1,
      waterTemperature: 70,
      stir: { tool: 'drill', minutes: 10 },
      section: 0.3,
      dirt: 0.1,
      additions: [{ id: 'citrate', share: 0.01 }],
    })
    expect(far.remarks.map(r => r.code)).toEqual([
      'outside-ratio',
      'outside-temperatures',
      'outside-stirring',
      'outside-thickness',
      'outside-dirt',
      'too-much-of',
    ])
    expect(labRemarkWords(far.remarks[0]!)).toBe(
      'Outside what the model was checked for: this powder is used at 60 to 90.',
    )
  })

  it('every estimate holds its centre, has its basis, and an uncertain additive widens what it acts on', () => {
    const plain = forecast(labInput(usual)),
      doubtful = forecast(labInput({ ...usual, additions: [{ id: 'citrate', share: 0.001 }] }))
    for (const f of labFacts(usual, worked(usual), plain)) {
      expect(factNote(f)).toMatch(/^\S.{4,}\.$/)
      if (f.low !== undefined) expect(f.low <= f.value && f.value <= f.high!).toBe(true)
    }
    const width = (x: typeof plain) => Math.log(x.moments.glossGone.high / x.moments.glossGone.low)
    expect(width(doubtful)).toBeGreaterThan(1.2 * width(plain))
    expect(labDrying(usual).low).toBeLessThan(labDrying({ ...usual, section: 0.05 }).low)
  })

  it('a plan is brought in with its thickest cast and its own times', () => {
    const mould: MouldFacts = {
      id: 'm',
      name: 'Print',
      material: 'ground',
      volume: { value: 5e-4, low: 4e-4, high: 6e-4 },
      mouth: { shape: 'round', width: 0.1, length: 0.1 },
      wall: 0.03,
      section: 0.04,
      fragile: false,
    }
    const plan: Plan = {
      name: '',
      endUse: 'sealed',
      fills: [{ mould: 'm', count: 1 }],
      classId: 'plaster-of-paris',
      school: 'weighed',
      ratio: 0.65,
      scoop: { volume: 2.5e-4, filling: 'loose', perWater: 2 },
      waterTemperature: 9,
      roomTemperature: 6,
      bucket: 'b',
      losses: 0,
      soakMinutes: 2,
      stir: { tool: 'hand', minutes: 3 },
      additions: [],
      known: { what: 'moulds', amount: 0 },
    }
    const mix = mixOfPlan(
      plan,
      workOutPlan(plan, {
        moulds: [mould],
        bucket: { id: 'b', name: 'Pail', vessel: { bottom: 0.2, top: 0.25, height: 0.24 } },
      }),
    )
    expect(mix).toMatchObject({
      ratio: 0.65,
      waterTemperature: 9,
      section: 0.04,
      mould: 'ground',
      behind: 'ground',
      stir: { minutes: 3 },
    })
    expect(mix.soak).toBeGreaterThan(120)
    expect(mixOfPlan(plan, workOutPlan(plan, { moulds: [] }))).toMatchObject({
      section: usualMix('plaster-of-paris').section,
    })
  })
})

describe('what is said at a point of choice', () => {
  it('fits powder, amount and temperature', () => {
    const stone = powderClass('dental-type-4'), plaster = powderClass('plaster-of-paris')
    expect(soakAdvice('weighed', plaster, 2)).not.toBe(soakAdvice('weighed', stone, 2))
    expect(soakAdvice('dumped', plaster, 3)).toBe('dumped-long')
    expect(stirAdvice({ tool: 'hand', minutes: 2 }, plaster, 12)).toEqual({ tool: 'hand', fits: false, much: false })
    expect(stirAdvice({ tool: 'drill', minutes: 4 }, plaster, 12)).toEqual({ tool: 'drill', fits: true, much: true })
    expect(stirAdvice({ tool: 'vacuum-mixer', minutes: 0.5 }, stone, 1).fits).toBe(true)
    expect(waterAdviceWords(waterAdvice(8, 20, 11))).toMatch(/^Cold water buys time: the mix starts about \d+ % slower/)
    expect(waterAdvice(20, 20, 20).code).toBe('room')
    expect(waterAdvice(55, 20, 45).code).toBe('hot')
  })
})
