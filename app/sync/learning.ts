import { wrap, type Remote } from 'comlink'
import { shallowRef } from 'vue'
import { learningInputs, observationsOf, withMoments } from '~core/forecast/observations'
import type { FrozenRun } from '~core/plan/run'
import type { PourState } from '~core/pour/fold'
import type { BatchAsked, BatchLearnt, LearnWork } from '~/workers/learn.worker'

let running: Remote<LearnWork> | undefined
/** Questions that are on their way; each is answered with nothing when the worker breaks. */
const asked = new Set<() => void>()
function start(): Remote<LearnWork> {
  const worker = new Worker(new URL('../workers/learn.worker.ts', import.meta.url), { type: 'module' })
  // What cannot be worked out leaves the plan's own forecast standing.
  worker.onerror = () => {
    worker.terminate()
    running = undefined
    for (const giveUp of asked) giveUp()
    asked.clear()
  }
  return wrap<LearnWork>(worker)
}

/**
 * What batches have taught so far. The worker is kept with what it knows of each mix; questions are answered in their
 * order.
 */
export function learnBatches(batches: readonly BatchAsked[]): Promise<readonly BatchLearnt[]> {
  const work = running ??= start(), plain = JSON.parse(JSON.stringify(batches)) as readonly BatchAsked[]
  return new Promise((resolve) => {
    const giveUp = () => resolve([])
    asked.add(giveUp)
    void work.learn(plain).then(resolve, giveUp).finally(() => asked.delete(giveUp))
  })
}

/** What a pour asks to be learnt: its batches as far as they are wet. */
function askedOf(run: FrozenRun, state: PourState): readonly BatchAsked[] {
  return state.batches.flatMap((batch, b) =>
    batch.wetAt === undefined
      ? []
      : [{ batch: b, kinds: learningInputs(run, state, b), seen: observationsOf(state, b) }],
  )
}

/**
 * The forecasts of several pours as they learn: the same on the bench, on a wall and for whoever is told of a moment
 * elsewhere.
 */
export function learntRuns() {
  const learnt = shallowRef<ReadonlyMap<string, ReadonlyMap<number, BatchLearnt>>>(new Map())
  const asked = new Map<string, { readonly key: string, readonly answered: Promise<boolean> }>()

  /**
   * Learns from what a pour has become. @returns whether what is known now is of this state; a newer state of the same
   * pour takes over from an older one.
   */
  function follow(id: string, run: FrozenRun, state: PourState): Promise<boolean> {
    const batches = askedOf(run, state), key = JSON.stringify(batches), before = asked.get(id)
    if (before?.key === key) return before.answered
    const answered = learnBatches(batches).then((answer) => {
      if (asked.get(id)?.key !== key) return false
      learnt.value = new Map(learnt.value).set(id, new Map(answer.map(a => [a.batch, a])))
      return true
    })
    asked.set(id, { key, answered })
    return answered
  }
  function forget(id: string): void {
    asked.delete(id)
    const rest = new Map(learnt.value)
    rest.delete(id)
    learnt.value = rest
  }
  const of = (id: string): ReadonlyMap<number, BatchLearnt> => learnt.value.get(id) ?? NOTHING
  /** A run as this batch has it by now: its moments are what was learnt. */
  function runFor(id: string, run: FrozenRun, batch: number): FrozenRun {
    const known = of(id).get(batch)
    return known ? withMoments(run, known.moments) : run
  }
  return { follow, forget, of, runFor }
}
const NOTHING: ReadonlyMap<number, BatchLearnt> = new Map()
