import { expectedDrying, usualStanding } from '../drying/expected'
import { BREATHES } from '../gypsum/end-use'
import { solveMix } from '../gypsum/mix'
import { powderClass } from '../gypsum/powders'
import { adiabaticRise, settingMix } from '../setting/setting-mix'
import type { Forecast } from '../setting/moments'
import type { Basis } from '../units/quantity'
import { labInput, type LabCentre, type LabMix } from './mix'

type Unit = 'time' | 'temperature' | 'fine' | 'percent' | 'share' | 'strength' | 'density' | 'pas'
type Ranged = 'low' | 'high'
interface Row {
  readonly id: string
  readonly unit: Unit
  readonly centre: (centre: LabCentre) => number
  readonly range: (forecast: Forecast) => Readonly<Record<Ranged, number>> | undefined
}

/** In the order in which they come about. */
const ROWS = [
  { id: 'pour', unit: 'time', centre: c => c.pourBy, range: f => f.moments.pourBy },
  { id: 'tap', unit: 'time', centre: c => c.tapUntil, range: f => f.moments.tapUntil },
  { id: 'bubble', unit: 'fine', centre: c => c.bubble, range: f => f.outcome.bubble },
  { id: 'viscosity', unit: 'pas', centre: c => c.viscosity, range: f => f.outcome.viscosity },
  { id: 'bleed', unit: 'share', centre: c => c.bleed, range: f => f.outcome.bleed },
  { id: 'gloss', unit: 'time', centre: c => c.glossGone, range: f => f.moments.glossGone },
  { id: 'initial', unit: 'time', centre: c => c.initialSet, range: f => f.moments.initialSet },
  { id: 'final', unit: 'time', centre: c => c.finalSet, range: f => f.moments.finalSet },
  { id: 'warmest', unit: 'time', centre: c => c.warmest, range: f => f.moments.warmest },
  { id: 'core', unit: 'temperature', centre: c => c.warmestTemperature, range: f => f.moments.warmestTemperature },
  { id: 'skin', unit: 'time', centre: c => c.above43, range: f => f.outcome.above43 },
  { id: 'open', unit: 'time', centre: c => c.open, range: f => f.moments.openEarliest },
  { id: 'cool', unit: 'time', centre: c => c.coolAgain, range: f => f.moments.coolAgain },
  { id: 'growth', unit: 'percent', centre: c => c.expansion, range: f => f.outcome.expansion },
  { id: 'hour', unit: 'strength', centre: c => c.hourStrength, range: f => f.outcome.hourStrength },
  { id: 'wet', unit: 'strength', centre: c => c.wetStrength, range: f => f.outcome.wetStrength },
  { id: 'damp', unit: 'strength', centre: c => c.dampStrength, range: f => f.outcome.dampStrength },
  { id: 'dry', unit: 'strength', centre: c => c.dryStrength, range: f => f.outcome.dryStrength },
  { id: 'density', unit: 'density', centre: c => c.dryDensity, range: f => f.outcome.dryDensity },
  { id: 'pores', unit: 'share', centre: c => c.porosity, range: f => f.outcome.porosity },
] as const satisfies readonly Row[]
export type LabFactId = typeof ROWS[number]['id'] | 'paint'

/** One fact of a mix, in the SI unit of its kind. */
export interface LabFact {
  readonly id: LabFactId
  readonly unit: Unit
  readonly value: number
  readonly low?: number
  readonly high?: number
  /** Of its core: what it would gain without any loss, K. */
  readonly rise?: number
  readonly basis?: Basis
}

/** Time from opening until dry enough for paint, on a rack in still room air: the first estimate. */
export function labDrying(mix: LabMix): ReturnType<typeof expectedDrying> {
  const amounts = solveMix({
    powder: powderClass(mix.classId),
    ratio: mix.ratio,
    waterTemperature: mix.waterTemperature,
    additions: mix.additions,
  }, { what: 'powder', amount: 1 })
  return expectedDrying(amounts, { volume: 1e-3, section: mix.section }, BREATHES, usualStanding(mix.roomTemperature))
}

/** Facts of one mix for the table. @param ranges come a moment after the centre values. */
export function labFacts(mix: LabMix, centre: LabCentre, ranges?: Forecast): readonly LabFact[] {
  const input = { ...labInput(mix), ratio: mix.ratio }, rise = adiabaticRise(input, settingMix(input).start)
  const facts = ROWS.map(({ id, unit, centre: of, range }): LabFact => {
    const known = ranges && range(ranges)
    return { id, unit, value: of(centre), low: known?.low, high: known?.high, ...id === 'core' && { rise } }
  })
  return [...facts, { id: 'paint', unit: 'time', ...labDrying(mix) }]
}
