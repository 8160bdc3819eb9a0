import { additionKind, type Addition, type AdditionId } from './additions'
import type { SchoolId } from './schools'
import type { Kilograms } from '../units/quantity'

/**
 * How what is added goes in (common practice, no source): with the dry powder, in the water before it, into the bag on
 * the water, or folded in once it is stirred. What colours has a choice, since it shows; the rest has its one way.
 */
export type WayIn = 'powder' | 'water' | 'bag' | 'fold'
export const WAYS_IN: readonly WayIn[] = ['powder', 'water', 'bag', 'fold']

/** What lies in the mix as grains or fibre goes in dry; the rest dissolves in the water. */
const goesDry = (id: AdditionId): boolean => additionKind(id).grain !== undefined || id === 'glass-fibre'

const DRY_COLOUR: readonly WayIn[] = ['powder', 'water', 'fold'], WET_COLOUR: readonly WayIn[] = ['water', 'fold']

/**
 * The ways in which an addition may go in, the usual one first; none where it takes the place of the water.
 * @example waysIn('dry-pigment', 'weighed') // ['powder', 'water', 'fold']
 */
export function waysIn(id: AdditionId, school: SchoolId): readonly WayIn[] {
  const { instead, colours } = additionKind(id)
  if (instead) return []
  if (!colours) return [goesDry(id) ? 'powder' : 'water']
  const ways = colours === 'dry' ? DRY_COLOUR : WET_COLOUR
  // Nothing can be folded into a closed bag, but its colour may go in by itself.
  return school === 'bag' ? [...ways.filter(w => w !== 'fold'), 'bag'] : ways
}

/** The way in that holds: as it was chosen where the school has it, else the usual one. */
export function wayIn({ id, way }: Addition, school: SchoolId): WayIn | undefined {
  const ways = waysIn(id, school)
  return way && ways.includes(way) ? way : ways[0]
}

/** What is folded in last: it takes a few slow turns more. */
export const foldsIn = (additions: readonly Addition[], school: SchoolId): boolean =>
  additions.some(a => a.share > 0 && wayIn(a, school) === 'fold')

/** What goes in by one way. */
export interface WentIn {
  readonly way: WayIn
  readonly items: readonly { readonly id: AdditionId, readonly mass: Kilograms }[]
}
/** What is added to a batch, by the way it goes in, in the order in which it does. @param added masses of the batch */
export function byWayIn(
  added: WentIn['items'], { additions, school }: { readonly additions: readonly Addition[], readonly school: SchoolId },
): readonly WentIn[] {
  const wayOf = (id: AdditionId) => wayIn(additions.find(a => a.id === id) ?? { id, share: 0 }, school)
  return WAYS_IN.map(way => ({ way, items: added.filter(a => wayOf(a.id) === way) })).filter(w => w.items.length > 0)
}
