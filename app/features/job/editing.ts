import type { JobStep } from '~core/job/types'
import type { JobBody } from '~contract/job'
import { newId } from '~/sync/api'

/** Changes of a chain's steps; links that led to a step that goes lead to what that followed. */

/** @returns the steps without one of them */
export function withoutStep(steps: readonly JobStep[], id: string): JobStep[] {
  const gone = steps.find(s => s.id === id)
  return steps.filter(s => s.id !== id).map(s => ({
    ...s,
    after: s.after.flatMap(l => l.step !== id
      ? [l]
      : (gone?.after ?? []).filter(g => g.step !== s.id).map(g => ({ ...g, most: undefined, missed: undefined }))),
  }))
}
/** @returns the steps with a new one, of the hands, after one of them; what followed it next follows the new one */
export function withStepAfter(steps: readonly JobStep[], id: string): JobStep[] {
  const added: JobStep = { id: newId().slice(0, 8), kind: 'hand', name: 'A step', minutes: 5, after: [{ step: id, at: 'end', least: 0 }] }
  return steps.flatMap(s => s.id === id ? [s, added] : [s])
}
export function movedStep(steps: readonly JobStep[], id: string, by: -1 | 1): JobStep[] {
  const from = steps.findIndex(s => s.id === id), to = from + by, moved = [...steps]
  if (from < 0 || to < 0 || to >= steps.length) return moved
  moved.splice(to, 0, ...moved.splice(from, 1))
  return moved
}
/** Nobody's marks stand in what is kept to begin from. */
export const asOwn = (body: JobBody, steps: JobStep[]): JobBody => ({ ...body, own: true, steps, startedAt: undefined, note: '' })
