import type { TapeAct, TapeInput } from '../drawing/tape'
import type { SchoolId } from '../gypsum/schools'
import type { Seconds } from '../units/quantity'
import type { Milestone } from './milestones'

const ACTS = ['sift', 'soak', 'stir', 'fill'] as const
const actOf = (id: typeof ACTS[number], school: SchoolId): TapeAct => {
  if (id === 'sift' && school === 'powder-first') return 'water'
  return id === 'stir' && school === 'bag' ? 'knead' : id
}

/**
 * The tape of a bucket with what has happened to it by now. @param milestones in the order of time; where one has
 * happened, that counts. @param stiff from when it may be too stiff to pour
 */
export function tapeOf(
  milestones: readonly Milestone[],
  school: SchoolId,
  stiff?: Seconds,
): TapeInput {
  const found = (id: Milestone['id']) => milestones.find(m => m.id === id)
  const at = (m: Milestone | undefined) => m && (m.actual ?? m.value)
  const acts = ACTS.flatMap((id) => {
    const m = found(id)
    return m ? [{ id: actOf(id, school), end: at(m)!, done: m.actual !== undefined }] : []
  })
  const open = found('open')
  return {
    acts, stiff, gloss: at(found('set')), warmest: at(found('warm')),
    open: open && { from: open.low, to: open.high },
  }
}
