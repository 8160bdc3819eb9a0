import {
  formatDensity,
  formatDuration,
  formatDurationRange,
  formatFine,
  formatPercent,
  formatStrength,
  formatTemperature,
  roundTo,
} from '~core/units/format'
import type { UnitPreferences } from '~core/units/units'
import type { LabFact } from '~core/lab/facts'
import { NOT_WITHIN } from '~core/setting/moments'

/** How the variants are told apart, in print and without colour too. */
export const VARIANTS = [
  { letter: 'A', colour: 'var(--variant-a)', dash: '' },
  { letter: 'B', colour: 'var(--variant-b)', dash: '9 4' },
  { letter: 'C', colour: 'var(--variant-c)', dash: '3 4' },
  { letter: 'D', colour: 'var(--variant-d)', dash: '12 3 2 3' },
] as const

/** Below so many seconds a time is told to so many. */
const STEPS = [[60, 5], [600, 15], [3 * 3600, 60]] as const
/**
 * Times without false precision: to the quarter minute below ten, to the minute beyond, hours and half days in their
 * turn.
 */
function time(value: number): string {
  if (value >= 86_400) return formatDurationRange(value, value * 1.001).replace(/^(.+)–\1 d$/, '$1 d')
  if (value >= NOT_WITHIN) return 'not within 12 h'
  const step = STEPS.find(([below]) => value < below)?.[1] ?? 300
  return formatDuration(Math.round(value / step) * step)
}

const one = (unit: LabFact['unit'], value: number, prefs: UnitPreferences): string => {
  switch (unit) {
    case 'time': return time(value)
    case 'temperature': return formatTemperature(value, prefs)
    case 'fine': return Number.isFinite(value) ? formatFine(value, prefs) : 'none'
    case 'percent': return formatPercent(Math.round(value * 1e4) / 1e4)
    case 'share': return formatPercent(Math.round(value * 100) / 100)
    case 'strength': return formatStrength(value, prefs)
    case 'density': return formatDensity(value, prefs)
    case 'pas': return `${roundTo(value, value < 1 ? 0.01 : 0.1)} Pa s`
  }
}

/** The unit of a range is said once: `7.1–12 MPa`. */
function joined(low: string, high: string): string {
  const [a, unitA] = [low.replace(/[^\d.,\u2009\u2212-].*$/, ''), low.replace(/^[\d.,\u2009\u2212-]+/, '')]
  const unitB = high.replace(/^[\d.,\u2009\u2212-]+/, '')
  return low === high ? low : unitA === unitB && a ? `${a}–${high}` : `${low} – ${high}`
}

/** A fact as it is read in the table: its centre, and its range when that is known. */
export function showFact(fact: LabFact, prefs: UnitPreferences): { readonly value: string, readonly range: string } {
  const value = one(fact.unit, fact.value, prefs)
  if (fact.low === undefined || fact.high === undefined) return { value, range: '' }
  if (fact.unit === 'time')
    return {
      value,
      range: fact.high >= NOT_WITHIN && fact.high < 86_400
        ? `${one('time', fact.low, prefs)} or longer`
        : fact.high < 60
          ? joined(one('time', fact.low, prefs), one('time', fact.high, prefs))
          : formatDurationRange(fact.low, fact.high),
    }
  return { value, range: joined(one(fact.unit, fact.low, prefs), one(fact.unit, fact.high, prefs)) }
}

/** Whether two values differ enough to be worth looking at: as they are shown, and by a twentieth or a degree. */
export function differs(a: LabFact | undefined, b: LabFact, prefs: UnitPreferences): boolean {
  if (!a || one(a.unit, a.value, prefs) === one(b.unit, b.value, prefs)) return false
  return b.unit === 'temperature' ? Math.abs(a.value - b.value) >= 1 : Math.abs(Math.log(b.value / a.value)) >= 0.05
}
