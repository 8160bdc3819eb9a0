import { expose } from 'comlink'
import { learn, priorOf, type Observation, type Prior, type TellingSign } from '~core/forecast/learning'
import type { Taught } from '~core/plan/types'
import type { Moments, MomentsInput } from '~core/setting/moments'

/** The forecast that learns, beside the page. Surfaces of a mix are kept: one more mark then takes milliseconds. */
export interface BatchAsked {
  readonly batch: number
  readonly kinds: readonly { readonly moulds: readonly string[], readonly input: MomentsInput }[]
  readonly seen: readonly Observation[]
}
export interface BatchLearnt {
  readonly batch: number
  readonly moments: Readonly<Record<string, Moments>>
  readonly taught?: Taught
  readonly contradiction?: TellingSign
  readonly seen: number
}
const MOST_KEPT = 24
const kept = new Map<string, Prior>()
function prior(input: MomentsInput): Prior {
  const key = JSON.stringify(input)
  const known = kept.get(key) ?? priorOf(input)
  kept.delete(key)
  kept.set(key, known)
  if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value!)
  return known
}

function learnBatch({ batch, kinds, seen }: BatchAsked): BatchLearnt {
  const { moments, taught, contradiction } = learn(kinds.map(k => prior(k.input)), seen)
  return {
    batch,
    moments: Object.fromEntries(kinds.flatMap((k, i) => k.moulds.map(m => [m, moments[i]!]))),
    taught,
    contradiction,
    seen: seen.length,
  }
}
const work = { learn: (batches: readonly BatchAsked[]) => batches.map(learnBatch) }
export type LearnWork = typeof work
expose(work)
