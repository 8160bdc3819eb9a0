import { TOO_HOT } from '~core/drying/cast'
import { formatTemperature } from '~core/units/format'
import type { UnitPreferences } from '~core/units/units'

/** Why plaster cannot dry in air of this temperature, in words. */
export function airProblem(celsius: number, units: UnitPreferences): string | undefined {
  return celsius > TOO_HOT
    ? `Not above ${formatTemperature(TOO_HOT, units)}: plaster begins to lose the water it is made of, and turns weak.`
    : celsius < -20
      ? 'Nothing dries in that cold.'
      : undefined
}
