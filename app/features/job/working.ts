import { computed, ref, watch } from 'vue'
import { begunAnew, CHAINS } from '~core/job/chains'
import type { JobStep } from '~core/job/types'
import { workOutJob } from '~core/job/windows'
import { CHAIN_WORDS, nameOfStep, type ChainId } from '~core/job/words'
import { jobSchema, type JobBody } from '~contract/job'
import { plainly } from '~contract/zod'
import { useMixing } from '~/features/door/mixing'
import { usePlanning } from '~/features/plan/planning'
import { usePlans } from '~/sync/plans'
import { savedByItself } from '~/sync/by-itself'
import { useClock } from '~/sync/clock'
import { useLibrary } from '~/sync/library'
import { usePours } from '~/sync/pours'
import { useSession } from '~/sync/session'
import { steady } from '~/ui/steady'
import { thingsLike } from './planned'
import { usePourTimes } from './pour-times'

/** One job in hand: its steps and marks, saved by themselves; its windows, worked out by the second. */

/** A job like a chain of the product, or like one that is kept here. */
export function jobLike(from: ChainId | JobBody): JobBody {
  if (typeof from !== 'string') return { ...from, steps: begunAnew(from.steps), own: false, startedAt: undefined, note: '' }
  const { steps, cautions } = CHAINS.find(c => c.id === from)!
  return { name: CHAIN_WORDS[from].name, chain: from, cautions: [...cautions], steps: begunAnew(steps), own: false, note: '' }
}

/** @param id of the job @param made what it begins with, where it is new */
export function useWorking(id: string, made: () => JobBody) {
  const library = useLibrary(), session = useSession(), clock = useClock(), allPours = usePours()
  const item = computed(() => library.items.job.find(j => j.id === id)), known = item.value
  const copy = (of: JobBody) => JSON.parse(JSON.stringify(of)) as JobBody
  const body = ref<JobBody>(copy(known?.body ?? made()))
  const saved = savedByItself(() => ({ what: 'item', kind: 'job', id }), () => {
    const read = jobSchema.safeParse(body.value, { error: plainly })
    return read.success ? read.data : read.error.issues[0]!.message
  })
  saved.begin(known && { revision: known.revision, stamp: known.stamp })
  // What was marked on another device stands here too, unless something is still being kept.
  watch(item, (now) => {
    if (!now || saved.saving.value !== 'saved') return
    if (JSON.stringify(now.body) !== JSON.stringify(body.value)) body.value = copy(now.body)
    saved.begin({ revision: now.revision, stamp: now.stamp })
  })
  function change(part: Partial<JobBody>): void {
    Object.assign(body.value, part)
    if (session.mayWrite) saved.touch()
  }
  function changeStep(which: string, part: Partial<JobStep>): void {
    const steps = body.value.steps.map(s => s.id === which ? { ...s, ...part } : s)
    change({ steps, startedAt: body.value.startedAt ?? clock.read() })
  }
  // A pour that was given up is none: its step can be mixed again.
  const givenUp = (pour: string | undefined) =>
    allPours.rows.find(p => p.id === pour)?.summary.status === 'abandoned'
  const steps = steady(() =>
    (JSON.parse(JSON.stringify(body.value.steps)) as JobStep[])
      .map(s => givenUp(s.pour) ? { ...s, pour: undefined } : s))
  const pours = usePourTimes(() => steps.value), second = computed(() => Math.floor(clock.now / 1000) * 1000)
  const times = steady(() => workOutJob(steps.value, pours.value, second.value))
  const acts = actsOf({ steps: () => steps.value, changeStep, saved })
  return { body, change, changeStep, saved, steps, times, ...acts, item }
}

interface Acting {
  readonly steps: () => readonly JobStep[]
  readonly changeStep: (which: string, part: Partial<JobStep>) => void
  readonly saved: { readonly save: () => Promise<void> }
}
/** What hands do with a step. */
function actsOf({ steps, changeStep, saved }: Acting) {
  const clock = useClock(), planning = usePlanning(), plans = usePlans(), { mixIn } = useMixing()
  const begin = (id: string) => changeStep(id, { began: clock.read() })
  function end(id: string): void {
    const now = clock.read()
    changeStep(id, { began: steps().find(s => s.id === id)?.began ?? now, ended: now })
  }
  /** One press further back: what ended runs again, what ran was not begun. */
  function takeBack(id: string): void {
    const step = steps().find(s => s.id === id)
    changeStep(id, step?.ended === undefined ? { began: undefined } : { ended: undefined })
  }
  /** To the bench with its own plan, or with the door's mix. @returns the pour's id. @throws Refused in words */
  async function mix(step: JobStep): Promise<string> {
    const plan = plans.saved.find(p => p.id === step.plan)
    const pour = plan
      ? await planning.toBench({ id: plan.id, plan: plan.plan })
      : await mixIn(thingsLike(step.like!, nameOfStep(step)))
    changeStep(step.id, { pour })
    await saved.save()
    return pour
  }
  return { begin, end, takeBack, mix }
}
