import type { CubicMetres, Metres } from '../../units/quantity'
import { CLOTH_WORDS, type ClothWords } from '../cloth-words'

/**
 * Cloth or long fibre that is dipped and laid into a coat. How much mix each holds once the rest is stripped off
 * between two fingers, litres to a square metre of one layer, is an engineering guess; so is what laps take.
 */
const CLOTH_FACTS = [
  { id: 'open-weave', drinks: { low: 0.6, value: 0.9, high: 1.3 } },
  { id: 'close-weave', drinks: { low: 0.3, value: 0.5, high: 0.8 } },
  { id: 'long-fibre', drinks: { low: 0.9, value: 1.4, high: 2.2 } },
] as const
export type ClothId = typeof CLOTH_FACTS[number]['id']
export const CLOTHS: readonly (ClothWords & typeof CLOTH_FACTS[number])[]
  = CLOTH_FACTS.map(x => ({ ...x, ...CLOTH_WORDS[x.id] }))
const LAPS = 1.25

/** What is laid, over one cast. */
export interface Cloth {
  readonly kind: ClothId
  /** Into which coat, from 1; never the face. */
  readonly coat: number
  /** The surface that it covers. */
  readonly width: Metres
  readonly length: Metres
  readonly layers: number
  /** Cut into strips of this size; fibre is teased out and has none. */
  readonly strip?: { readonly width: Metres, readonly length: Metres }
}

export interface ClothNeeds {
  /** Cloth to cut, laps and layers counted, m2. */
  readonly area: number
  /** Strips to cut; nothing for fibre. */
  readonly strips?: number
  /** Mix that it holds and keeps, m3. */
  readonly drinks: { readonly value: CubicMetres, readonly low: CubicMetres, readonly high: CubicMetres }
}

/**
 * What laying cloth takes over so many casts.
 * @example clothNeeds({ kind: 'open-weave', coat: 2, width: 0.4, length: 0.5, layers: 2 }, 1).area // .5 m2
 */
export function clothNeeds({ kind, width, length, layers, strip }: Cloth, casts: number): ClothNeeds {
  const { drinks } = CLOTHS.find(c => c.id === kind)!, each = width * length * layers * LAPS, area = each * casts
  const litres = (perSquareMetre: number) => area * perSquareMetre / 1000
  return {
    area,
    ...strip && kind !== 'long-fibre' && { strips: casts * Math.ceil(each / (strip.width * strip.length) - 1e-9) },
    drinks: { value: litres(drinks.value), low: litres(drinks.low), high: litres(drinks.high) },
  }
}
