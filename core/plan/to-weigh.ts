import type { AdditionId } from '../gypsum/additions'
import type { Mix } from '../gypsum/mix'
import { powderClass } from '../gypsum/powders'
import { byWayIn, type WayIn } from '../gypsum/ways-in'
import type { Kilograms } from '../units/quantity'
import type { Plan } from './types'

/** Everything that goes onto the scale for one bucket, in the order in which the way of mixing uses it. */

/** Of a powder that is sold mixed: what it would be made of by somebody who mixes it themselves. */
export interface Split { readonly plaster: Kilograms, readonly filler: Kilograms }
export type ToWeigh
  = | { readonly what: 'water', readonly mass: Kilograms }
    | { readonly what: 'powder', readonly mass: Kilograms, readonly split?: Split }
    | { readonly what: 'addition', readonly id: AdditionId, readonly way: WayIn, readonly mass: Kilograms }

function splitOf({ classId }: Plan, powder: Kilograms): { readonly split?: Split } {
  const { composition } = powderClass(classId)
  if (!composition) return {}
  const plaster = powder / (1 + composition.share)
  return { split: { plaster, filler: powder - plaster } }
}

/**
 * What is weighed, one after the other: what goes into the water stands after the water, what goes in dry after the
 * powder, what is folded in last of all.
 * @example toWeigh(plan, batch.mix).map(w => w.what) // ['water', 'addition', 'powder', 'addition']
 */
export function toWeigh(plan: Plan, { water, powder, additions }: Pick<Mix, 'water' | 'powder' | 'additions'>): ToWeigh[] {
  const by = (way: WayIn) => byWayIn(additions, plan).filter(w => w.way === way)
    .flatMap(w => w.items.map((a): ToWeigh => ({ what: 'addition', way, ...a })))
  const wet: ToWeigh[] = [{ what: 'water', mass: water }, ...by('water')]
  const dry: ToWeigh[] = [{ what: 'powder', mass: powder, ...splitOf(plan, powder) }, ...by('powder')]
  const powderFirst = plan.school === 'powder-first' || plan.school === 'bag'
  return [...powderFirst ? [...dry, ...by('bag'), ...wet] : [...wet, ...dry, ...by('bag')], ...by('fold')]
}
