import { siftsPowder } from '../gypsum/schools'
import { pouringTime, siftingTime, stirringTime, type PaceStep } from '../plan/batches/pace'
import type { FrozenRun } from '../plan/run'
import type { Seconds } from '../units/quantity'
import type { PourState } from './fold'

/** How long the steps of a pour took against what they are taken for: what a person's pace is learnt from. */
export interface PaceTaken {
  readonly step: PaceStep
  /** Who ended the step, whose pace it is. */
  readonly who: string
  /** Logarithm of took over taken for, of one person at the usual pace. */
  readonly took: number
}

/** What is further off than this was no step but a forgotten press (engineering guess). */
const A_STEP = Math.log(5)

/** Steps whose beginning and end somebody told; none of a run whose times of day are not known. */
export function paceTaken(run: FrozenRun, state: PourState): readonly PaceTaken[] {
  if (run.daysOnly) return []
  const { plan } = run
  return run.batches.flatMap((batch, b): PaceTaken[] => {
    const told = state.batches[b]!.stages.filter(s => !s.inferred)
    const at = (stage: string) => told.find(s => s.stage === stage)
    const of = (step: PaceStep, from: string, to: string, usual: Seconds): PaceTaken[] => {
      const began = at(from), ended = at(to)
      if (!began || !ended?.by || !(usual > 0)) return []
      const took = Math.log((ended.at - began.at) / 1000 / usual)
      return Math.abs(took) < A_STEP ? [{ step, who: ended.by, took }] : []
    }
    const moulds = batch.fills.reduce((n, f) => n + f.copies, 0)
    const sifts = siftsPowder(plan.school) && plan.hands !== 2
    return [
      ...sifts ? of('sift', 'sift', 'soak', siftingTime({ school: plan.school }, batch.mix.powder)) : [],
      ...of('stir', 'stir', 'fill', stirringTime(plan)),
      ...batch.coat ? [] : of('pour', 'fill', 'clean-up', pouringTime(batch.mix.slurry, moulds)),
    ]
  })
}
