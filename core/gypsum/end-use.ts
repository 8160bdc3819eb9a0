import type { WaterRatio } from '../units/quantity'
import { END_USE_WORDS, type EndUseWords } from './words'
import type { PowderClass, PowderClassId } from './powders'

/** What the piece is for: the first question, because it steers ratio, opening and dryness. */
export type EndUseId
  = | 'painted'
    | 'sealed'
    | 'absorbent'
    | 'kept-damp'
    | 'meant-to-break'
    | 'dental'
    | 'investment'
    | 'outdoors'

interface EndUse extends EndUseWords {
  readonly id: EndUseId
  /** Someone can be hurt by it: its words have a caution. */
  readonly cautioned?: true
  /** Where in the usable range to aim: -1 thickest usable, 0 recommended, +1 thinnest usable. */
  readonly lean: number
  /** Classes that are commonly chosen for it, best first. */
  readonly suits: readonly PowderClassId[]
  /** Not opened before this many minutes after wetting, whatever the model says (common practice). */
  readonly openNotBefore: number
  /**
   * How dry the piece is when it is ready: share of its pore water left and, for heat, of its dry mass at most;
   * undefined when it is never dried.
   */
  readonly dryTo?: { readonly left: number, readonly atMost?: number }
}

/**
 * How much of its pore water may be left (engineering guesses, each from 0.6 to 1.6 times): under paint that breathes
 * and in a mould for clay, under what is tight, and before heat, where the whole mass counts too.
 */
export const BREATHES = { left: 0.10 } as const, TIGHT = { left: 0.02 } as const
export const BONE_DRY = { left: 0.01, atMost: 0.006 } as const

/** Steering by end use. Leans, opening floors: common practice, no source. Dryness limits: engineering guess. */
const END_USE_FACTS: readonly Omit<EndUse, keyof EndUseWords>[] = [
  {
    id: 'painted',
    lean: 0,
    suits: ['casting-plaster', 'gypsum-cement', 'plaster-of-paris'],
    openNotBefore: 0,
    dryTo: BREATHES,
  },
  {
    id: 'sealed',
    lean: 0,
    suits: ['gypsum-cement', 'high-strength-gypsum-cement', 'casting-plaster'],
    openNotBefore: 0,
    dryTo: TIGHT,
  },
  {
    id: 'absorbent',
    lean: 0.2,
    suits: ['pottery-plaster', 'plaster-of-paris'],
    openNotBefore: 60,
    dryTo: BREATHES,
  },
  {
    id: 'kept-damp',
    lean: 0,
    suits: ['pottery-plaster', 'plaster-of-paris'],
    openNotBefore: 60,
  },
  {
    id: 'meant-to-break',
    cautioned: true,
    lean: 0.8,
    suits: ['plaster-of-paris', 'casting-plaster'],
    openNotBefore: 0,
    dryTo: BREATHES,
  },
  {
    id: 'dental',
    cautioned: true,
    lean: 0,
    suits: ['dental-type-3', 'dental-type-4', 'dental-type-2', 'dental-type-5'],
    openNotBefore: 40,
    dryTo: BREATHES,
  },
  {
    id: 'investment',
    cautioned: true,
    lean: 0,
    suits: ['investment-plaster'],
    openNotBefore: 60,
    dryTo: BONE_DRY,
  },
  {
    id: 'outdoors',
    cautioned: true,
    lean: -0.6,
    suits: ['high-strength-gypsum-cement', 'gypsum-cement'],
    openNotBefore: 45,
    dryTo: TIGHT,
  },
]

export const END_USES: readonly EndUse[] = END_USE_FACTS.map(x => ({ ...x, ...END_USE_WORDS[x.id] }))

const BY_ID = new Map(END_USES.map(u => [u.id, u]))

/** @throws RangeError for an unknown id: ids are checked at the boundary. */
export function endUse(id: EndUseId): EndUse {
  const found = BY_ID.get(id)
  if (!found) throw new RangeError(`no end use ${id}`)
  return found
}

/** The ratio to aim at for this powder and purpose: the recommended one, leaned towards an end of the usable range. */
export function advisedRatio(powder: PowderClass, use: EndUse): WaterRatio {
  const { recommended, low, high } = powder.ratio
  const aimed = use.lean >= 0
    ? recommended + use.lean * (high - recommended)
    : recommended + use.lean * (recommended - low)
  return Math.round(aimed * 100) / 100
}
