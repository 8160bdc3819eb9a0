import type { CastNeed, CastSummary, PourSummary } from '~core/pour/projection'
import type { MilestoneId } from '~core/pour/milestones'
import type { GroundId } from '~core/setting/words'
import { standingWords } from '~core/drying/words'
import { formatConsistency, formatTemperature } from '~core/units/format'
import type { UnitPreferences } from '~core/units/units'

/** What the time of each moment of a pour stands on. */
export const MOMENT_GROUND: Readonly<Record<MilestoneId, GroundId>> = {
  sift: 'steps', soak: 'steps', stir: 'steps', fill: 'steps', set: 'gloss', warm: 'warmest', open: 'open', dry: 'dry',
}

/** What the time of each thing a cast needs stands on; a cast that waits for nobody has none. */
export const NEED_GROUND: Readonly<Partial<Record<CastNeed, GroundId>>> = {
  'open-late': 'open', 'open-now': 'open', 'setting': 'open', 'drying': 'dry', 'ready-now': 'dry',
}

/** What a cast’s times were worked out from, in words. */
export function castFrom(c: CastSummary, units: UnitPreferences): string {
  const mix = `${c.powder} at ${formatConsistency(c.ratio)}, in ${c.material.replace('-', ' ')}`
  return c.drying ? `${mix}; ${standingWords(c.drying.standing, units)}` : mix
}

/** What a pour’s times were worked out from, in words. */
export function pourFrom({ powder, ratio, temperatures: at }: PourSummary, units: UnitPreferences): string {
  const mix = `${powder} at ${formatConsistency(ratio.actual ?? ratio.planned)}`
  return at ? `${mix}; water ${formatTemperature(at.water, units)}, room ${formatTemperature(at.room, units)}` : mix
}
