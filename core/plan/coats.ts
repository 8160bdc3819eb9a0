import type { CubicMetres, Metres } from '../units/quantity'
import { formatFine } from '../units/format'
import { METRIC, type UnitPreferences } from '../units/units'
import type { Step } from './stages'

/**
 * Work in coats: the same moulds take several mixes, one after the other. Ways and times are common practice, no
 * source, but where the model speaks.
 */

/** One part of a shell, and how thick each coat of it is to be. */
export interface Area {
  readonly name: string /** Measured over its surface. */
  readonly width: Metres
  readonly length: Metres
  readonly thickness: readonly Metres[]
}

export interface Coats {
  readonly way: CoatWay
  /**
   * Share of the solid volume that each coat takes, the face first. They add up to one, but in a hollow cast, where
   * they are what stays. Not used where areas say it.
   */
  readonly shares: readonly number[]
  /** Thickness map of a shell: areas by coats. It then says how much each coat takes. */
  readonly areas?: readonly Area[]
}

export const COAT_WAYS = [
  {
    id: 'backed',
    hollow: false,
    name: 'Face coat, then the rest',
    how: 'A thin coat brushed into all detail; the rest behind it while the face still has its gloss.',
    shares: [0.25, 0.75],
  },
  {
    id: 'shell',
    hollow: false,
    name: 'Shell built up by hand',
    how:
      'Coat on coat to an even thickness; each waits until a drawn finger leaves a standing peak, and is left rough for the next.',
    shares: [0.3, 0.35, 0.35],
  },
  {
    id: 'swilled',
    hollow: true,
    name: 'Hollow, swilled',
    how: 'Pour in, roll it over every face until it stays, pour out; again for each coat.',
    shares: [0.14, 0.12, 0.12],
  },
  {
    id: 'base',
    hollow: false,
    name: 'Cast, then a base on it',
    how: 'Two mixes: the cast first, its back left rough and keyed, then the base.',
    shares: [0.6, 0.4],
  },
] as const
export type CoatWay = typeof COAT_WAYS[number]['id']
export const coatWay = (id: CoatWay) => COAT_WAYS.find(w => w.id === id)!

export const MOST_COATS = 8

/** Volume of each coat for one cast that would take `whole` when poured solid. */
export function coatVolumes(coats: Coats, whole: CubicMetres): readonly CubicMetres[] {
  if (coats.areas?.length)
    return coats.areas[0]!.thickness.map((_, k) =>
      coats.areas!.reduce((v, a) => v + a.width * a.length * (a.thickness[k] ?? 0), 0),
    )
  const sum = coatWay(coats.way).hollow ? 1 : coats.shares.reduce((a, b) => a + b, 0)
  return coats.shares.map(s => whole * s / sum)
}

/** What a cast of this mould takes: all of it poured solid, or what its coats come to. */
export function castVolume(
  { coats }: { readonly coats?: Coats },
  mould: { readonly volume: { readonly value: CubicMetres } },
): CubicMetres {
  return coats ? coatVolumes(coats, mould.volume.value).reduce((a, b) => a + b, 0) : mould.volume.value
}
/**
 * Its thickest part: of a shell the thickest area, of a hollow cast the share of the solid section that its volume is.
 */
export function castSection(
  { coats }: { readonly coats?: Coats },
  mould: { readonly volume: { readonly value: CubicMetres }, readonly section: Metres },
): Metres {
  if (coats?.areas?.length) return Math.max(...coats.areas.map(a => a.thickness.reduce((t, x) => t + x, 0)))
  return coats && coatWay(coats.way).hollow
    ? mould.section * castVolume({ coats }, mould) / mould.volume.value
    : mould.section
}

/**
 * Thinnest coat that can be laid and thickest that stays where it is put, and how uneven a shell may be before it dries
 * unevenly and cracks (engineering guesses).
 */
const THINNEST: Metres = 0.002, THICKEST: Metres = 0.02, UNEVEN = 1.6

/** What is wrong with coats, in sentences. */
export function coatProblems(
  coats: Coats,
  prefs: UnitPreferences = METRIC,
): readonly { readonly severity: 'refuse' | 'warn', readonly sentence: string }[] {
  const found: { severity: 'refuse' | 'warn', sentence: string }[] = []
  const count = coats.areas?.length ? coats.areas[0]!.thickness.length : coats.shares.length
  if (count < 2) found.push({ severity: 'refuse', sentence: 'Work in coats needs at least two.' })
  if (coats.areas?.length) {
    const thickness = coats.areas.map(a => a.thickness.reduce((t, x) => t + x, 0))
    const thin = coats.areas.findIndex(a => a.thickness.some(t => t > 0 && t < THINNEST)),
      bare = thickness.findIndex(t => t <= 0)
    if (coats.areas.some(a => a.thickness.length !== count))
      found.push({ severity: 'refuse', sentence: 'Every area needs a thickness for every coat; 0 where it has none.' })
    if (bare >= 0)
      found.push({
        severity: 'refuse',
        sentence: `“${coats.areas[bare]!.name}” gets nothing in any coat. Give it a thickness or take it out.`,
      })
    else if (Math.max(...thickness) > UNEVEN * Math.min(...thickness)) {
      const most = thickness.indexOf(Math.max(...thickness)), least = thickness.indexOf(Math.min(...thickness))
      found.push({
        severity: 'warn',
        sentence: `Uneven: “${coats.areas[most]!.name}” ends ${formatFine(thickness[most]!, prefs)} thick, “${
          coats.areas[least]!.name
        }” ${formatFine(thickness[least]!, prefs)}. Even thickness dries without cracking.`,
      })
    }
    if (thin >= 0)
      found.push({
        severity: 'warn',
        sentence: `A coat under ${formatFine(THINNEST, prefs)} on “${
          coats.areas[thin]!.name
        }” dries before it sets. Lay it thicker, or all in one.`,
      })
    if (coats.areas.some(a => a.thickness.some(t => t > THICKEST)))
      found.push({
        severity: 'warn',
        sentence: `A coat over ${formatFine(THICKEST, prefs)} sags on a slope. Split it in two.`,
      })
  }
  else if (coatWay(coats.way).hollow && coats.shares.reduce((a, b) => a + b, 0) > 1)
    found.push({ severity: 'refuse', sentence: 'That is more than the mould holds: a hollow cast takes a part of it.' })
  else if (coats.shares.some(s => !(s > 0)))
    found.push({ severity: 'refuse', sentence: 'Every coat takes something: give each a share.' })
  return found
}

export interface CoatOf { readonly number: number, readonly of: number }

/** Whether a batch is the one that finishes its casts: it makes them; the coats before it only belong to them. */
export const finishesCasts = ({ coat }: { readonly coat?: CoatOf }) => coat === undefined || coat.number === coat.of

/** The words of a coat on the bench. */
export function coatStep<S extends Step>(step: S, way: CoatWay, { number, of }: CoatOf): S {
  const name = way === 'base' ? (number === 1 ? 'the cast' : 'the base') : `coat ${number}`
  if (step.stage === 'clean-up' && number < of)
    return {
      ...step,
      detail: `${step.detail} Leave the face rough: the next coat grips it.`,
      done: `Bucket clean, on to ${way === 'base' ? 'the base' : `coat ${number + 1}`}`,
    }
  if (step.stage !== 'fill') return step
  switch (way) {
    case 'swilled':
      return {
        ...step,
        instruction: `Swill ${name} over every face`,
        detail: 'Pour in, roll and tip until it stays where it is, pour the rest back. Rims and corners last.',
        done: 'Swilled all over',
      }
    case 'base':
      return number === 1
        ? { ...step, detail: `${step.detail} Roughen and key the back while it is soft.` }
        : {
            ...step,
            instruction: 'Set the base on',
            detail: 'Wet the back, work a thin coat into it, then the rest. Nowhere thinner than its list says.',
            done: 'Base on',
          }
    case 'shell':
    case 'backed':
      if (number === 1)
        return {
          ...step,
          instruction: 'Lay the face coat',
          detail: 'Brush or flick it thinly into all detail, blow the bubbles off, leave no puddle.',
          done: 'Face coat on',
        }
      if (way === 'backed')
        return {
          ...step,
          instruction: number === of ? 'Fill behind the face' : `Lay ${name}`,
          detail: 'Press the first of it into the face, then the rest; leave no gap between the coats.',
          done: 'All behind it',
        }
      return {
        ...step,
        instruction: `Build ${name} evenly`,
        detail: number === of
          ? 'Even thickness, edges too; then smooth the outside.'
          : 'Even thickness, edges too; leave it rough.',
        done: 'Coat on',
      }
  }
}
