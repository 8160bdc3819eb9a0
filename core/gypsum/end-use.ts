import type { WaterRatio } from '../units/quantity'
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

export interface EndUse {
  readonly id: EndUseId
  readonly name: string
  readonly wants: string
  /** Where in the usable range to aim: -1 thickest usable, 0 recommended, +1 thinnest usable. */
  readonly lean: number
  /** Classes that are commonly chosen for it, best first. */
  readonly suits: readonly PowderClassId[]
  /** Not opened before this many minutes after wetting, whatever the model says (common practice). */
  readonly openNotBefore: number
  /** Free water over dry mass at which the piece is ready; undefined when it is never dried. */
  readonly dryAt?: number
  readonly dryWord: string
  readonly caution?: string
}

/** Steering by end use. Leans, opening floors: common practice, no source. Dryness limits: engineering guess. */
export const END_USES: readonly EndUse[] = [
  {
    id: 'painted',
    name: 'To be painted',
    wants: 'A clean face, dry enough for paint that breathes.',
    lean: 0,
    suits: ['casting-plaster', 'gypsum-cement', 'plaster-of-paris'],
    openNotBefore: 0,
    dryAt: 0.05,
    dryWord: 'dry enough to paint',
  },
  {
    id: 'sealed',
    name: 'To be sealed',
    wants: 'Dry right through, or the sealer lifts.',
    lean: 0,
    suits: ['gypsum-cement', 'high-strength-gypsum-cement', 'casting-plaster'],
    openNotBefore: 0,
    dryAt: 0.01,
    dryWord: 'dry enough to seal',
  },
  {
    id: 'absorbent',
    name: 'To draw water from clay',
    wants: 'Pores: a thinner mix, dried well but never baked.',
    lean: 0.2,
    suits: ['pottery-plaster', 'plaster-of-paris'],
    openNotBefore: 60,
    dryAt: 0.05,
    dryWord: 'dry enough for clay',
  },
  {
    id: 'kept-damp',
    name: 'To stay damp on purpose',
    wants: 'Pores that hold water; re-wet it and watch for mildew.',
    lean: 0,
    suits: ['pottery-plaster', 'plaster-of-paris'],
    openNotBefore: 60,
    dryWord: 'kept damp',
  },
  {
    id: 'meant-to-break',
    name: 'Meant to break',
    wants: 'Thin and weak, with no hard shards.',
    lean: 0.8,
    suits: ['plaster-of-paris', 'casting-plaster'],
    openNotBefore: 0,
    dryAt: 0.05,
    dryWord: 'dry enough to use',
    caution: 'A breaking prop throws shards: keep it away from eyes and faces and try one first.',
  },
  {
    id: 'dental',
    name: 'Dental model',
    wants: 'The stated ratio, weighed; measured for size afterwards.',
    lean: 0,
    suits: ['dental-type-3', 'dental-type-4', 'dental-type-2', 'dental-type-5'],
    openNotBefore: 40,
    dryAt: 0.05,
    dryWord: 'dry enough to trim dry',
    caution: 'The licensed person stays responsible for anything that is fitted to a patient.',
  },
  {
    id: 'investment',
    name: 'To hold molten glass',
    wants: 'Even thickness, no lumps, bone dry before heat.',
    lean: 0,
    suits: ['plaster-silica'],
    openNotBefore: 60,
    dryAt: 0.005,
    dryWord: 'bone dry',
    caution: 'Damp plaster in a kiln bursts with steam. Heat only what is bone dry, slowly, with trained people.',
  },
  {
    id: 'outdoors',
    name: 'To live outdoors',
    wants: 'The densest mix that still pours, then dried and sealed.',
    lean: -0.6,
    suits: ['high-strength-gypsum-cement', 'gypsum-cement'],
    openNotBefore: 45,
    dryAt: 0.01,
    dryWord: 'dry enough to seal',
    caution: 'Gypsum dissolves slowly in rain: sealed and off the ground it lasts, bare it does not.',
  },
]

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
