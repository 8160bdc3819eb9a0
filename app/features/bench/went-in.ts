import { jugOf, type SchoolId } from '~core/gypsum/schools'
import type { FrozenRun } from '~core/plan/run'
import type { BatchState } from '~core/pour/fold'
import type { Happening } from '~core/pour/events'
import type { Kilograms } from '~core/units/quantity'

/** Water or powder of a batch: what is wanted of it and, once that was said, what there was. */
export interface Part {
  readonly what: 'water' | 'powder'
  readonly wanted: Kilograms
  readonly had?: Kilograms
}

/** What is measured before anything is wet, in the order in which it is. By feel the water waits in its jug. */
export function partsOf({ plan, batches }: FrozenRun, b: number, { weighed, jug }: BatchState): readonly Part[] {
  const { mix } = batches[b]!, powder: Part = { what: 'powder', wanted: mix.powder, had: weighed.powder }
  return plan.school === 'powder-first'
    ? [powder, { what: 'water', wanted: jugOf(mix.water).full, had: jug.before }]
    : [{ what: 'water', wanted: mix.water, had: weighed.water }, powder]
}

/** How measuring it is told. */
export function wentIn(
  school: SchoolId, what: Part['what'], mass: Kilograms, how: 'scale' | 'jug' | 'scoops',
): Happening {
  return school === 'powder-first' && what === 'water'
    ? { kind: 'jug', data: { when: 'before', mass } }
    : { kind: 'weighed', data: { what, mass, how } }
}
