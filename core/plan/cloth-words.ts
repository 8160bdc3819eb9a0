import { formatArea, formatLength, formatVolume } from '../units/format'
import type { UnitPreferences } from '../units/units'
import type { Cloth, ClothId, ClothNeeds } from './batches/cloth'

export interface ClothWords { readonly name: string, readonly how: string }
const DIP = 'Dip it, strip the rest off between two fingers, and press it into the wet coat so that no air stays behind it.'
export const CLOTH_WORDS: Readonly<Record<ClothId, ClothWords>> = {
  'open-weave': { name: 'Open cloth, jute or scrim', how: DIP },
  'close-weave': { name: 'Close cloth, sheet or sacking', how: `${DIP} Wet it first: it holds air.` },
  'long-fibre': { name: 'Long fibre, teased out', how: 'Tease it out thin, dip it, and press it into the wet coat until no fibre stands up.' },
}

/** What is known of how much tougher it gets. */
export const CLOTH_STRENGTH = 'Tougher: a shell that cracks holds together. How much is not worked out here.'

/** What to cut and dip: “9 strips of 60 × 300 mm, 1 250 cm² with laps”. */
export function clothAmount({ strip }: Cloth, { area, strips }: ClothNeeds, units: UnitPreferences): string {
  const whole = `${formatArea(area, units)} with laps`
  return strips && strip
    ? `${strips} ${strips === 1 ? 'strip' : 'strips'} of ${formatLength(strip.width, units)} × ${formatLength(strip.length, units)}, ${whole}`
    : whole
}
/** What it drinks of the mix. */
export function clothDrinks({ drinks }: ClothNeeds, units: UnitPreferences): string {
  const volume = (m3: number) => formatVolume(m3, units)
  return `It drinks about ${volume(drinks.value)} of mix (${volume(drinks.low)} to ${volume(drinks.high)}), which is mixed too.`
}
