import { useRafFn } from '@vueuse/core'
import { computed, onScopeDispose, ref, shallowRef, triggerRef, watch } from 'vue'
import { TICK, type Bucket } from '~core/practice/bucket'
import { actNow, beginRun, bucketOf, play, settingOf, sinceWet, wait } from '~core/practice/run'
import type { Bowl } from '~core/practice/scenarios'
import { feltFrom, senses } from '~core/practice/senses'
import type { Act, Log } from '~core/practice/types'
import { oneAtATime } from '~/workers/one-at-a-time'
import type { PracticeWork, Told } from '~/workers/practice.worker'

/** One bucket being practised on: its clock runs at one's own pace; every act is logged, to go back to. */

export const PACES = [0, 1, 4, 20, 60] as const
export type Pace = typeof PACES[number]
/** A page that was hidden goes on from where it was, not from what the clock says. */
const LONGEST_FRAME_S = 0.25

export type Stroke = Omit<Extract<Act, { readonly do: 'stir' }>, 'do' | 'seconds'>

export interface Practised {
  /** The bucket that is given; one’s own, without. */
  readonly seed?: number
  /** Held by whoever leads the class. */
  readonly held?: () => boolean
  /** Under which name this tab keeps what was done, so that a reload goes on from there. */
  readonly keepAs?: string
  /** What somebody did, to be looked at. */
  readonly log?: Log
}
/** How the same bucket went the time before: one went back into it, or began it again. */
export interface Before { readonly told: Told, readonly log: Log }
interface Kept { readonly seed: number, readonly log: Log, readonly waited: number }
function keptRun(name: string | undefined): Kept | undefined {
  try {
    return name ? JSON.parse(sessionStorage.getItem(name) ?? 'null') as Kept | null ?? undefined : undefined
  }
  catch {
    return undefined
  }
}

export function usePractising(
  { setup, expert }: Bowl, { seed: given, held = () => false, keepAs, log }: Practised = {},
) {
  const kept = keptRun(keepAs)
  const seed = ref(given ?? kept?.seed ?? 1 + Math.floor(Math.random() * 1e6))
  const run = shallowRef(beginRun(setup, seed.value)), pace = ref<Pace>(1), told = shallowRef<Told>(), busy = ref(false)
  const stirring = shallowRef<Stroke>(), before = shallowRef<Before>()
  let waited = 0, behind = 0
  if (kept?.seed === seed.value) {
    run.value = play(setup, seed.value, kept.log)
    wait(run.value, waited = kept.waited)
  }
  const keep = () => {
    if (!keepAs) return
    const now: Kept = { seed: seed.value, log: run.value.log, waited }
    try {
      sessionStorage.setItem(keepAs, JSON.stringify(now))
    }
    catch { /* A browser that keeps nothing begins again after a reload. */ }
  }
  const workers = oneAtATime<PracticeWork>(() =>
    new Worker(new URL('../../workers/practice.worker.ts', import.meta.url), { type: 'module' }))
  void workers.ask(work => work.ready() as Promise<boolean>)
  onScopeDispose(() => workers.cancel())

  function step(): void {
    if (stirring.value) {
      actNow(run.value, { do: 'stir', ...stirring.value, seconds: TICK }, waited)
      waited = 0
      return
    }
    wait(run.value, TICK)
    waited += TICK
  }
  useRafFn(({ delta }) => {
    if (told.value || pace.value === 0 || held()) return
    behind += Math.min(LONGEST_FRAME_S, delta / 1000) * pace.value
    if (behind < TICK) return
    for (; behind >= TICK; behind -= TICK) step()
    triggerRef(run)
  })
  function act(what: Act): void {
    stirring.value = undefined
    if (held()) return
    actNow(run.value, what, waited)
    waited = 0
    triggerRef(run)
    keep()
  }
  /** The hand goes on until it is told otherwise. */
  function stirWith(stroke: Stroke | undefined): void {
    stirring.value = held() ? undefined : stroke
    keep()
  }
  /** Time that nobody wants to watch. */
  function pass(seconds: number): void {
    stirring.value = undefined
    if (held()) return
    wait(run.value, seconds)
    waited += seconds
    triggerRef(run)
    keep()
  }
  /** From here the other way: what was done up to there stands, and the rest is open again. */
  function goBack(log: Log): void {
    if (busy.value) workers.cancel()
    if (told.value) before.value = { told: told.value, log: run.value.log }
    stirring.value = undefined
    waited = behind = 0
    run.value = play(setup, seed.value, log)
    told.value = undefined
    keep()
  }
  function again(sameBucket: boolean): void {
    goBack([])
    if (sameBucket) return
    seed.value = 1 + Math.floor(Math.random() * 1e6)
    before.value = undefined
    goBack([])
  }
  if (log) {
    run.value = play(setup, seed.value, log)
    void finish()
  }
  async function finish(): Promise<void> {
    stirring.value = undefined
    busy.value = true
    const [bowl, log] = JSON.parse(JSON.stringify([{ setup, expert }, run.value.log])) as [Bowl, Log]
    told.value = await workers.ask<Told>(work => work.tell(bowl, seed.value, log) as Promise<Told>) ?? told.value
    busy.value = false
  }
  // A new thing each time: the run itself is moved on in place.
  const bucket = computed<Bucket>(() => ({ ...bucketOf(run.value) })), felt = computed(() => senses(run.value))
  const isStirred = computed(() => settingOf(run.value) !== undefined)
  const time = computed(() => sinceWet(run.value))
  const poured = computed(() => run.value.pieces.some(p => p.filled > 0 || p.wall > 0))
  const opened = computed(() => run.value.pieces.every(p => p.openedAt !== undefined))
  /** What a hand on the mould tells: worked out once for what stands in it. */
  const moments = shallowRef<{ readonly warm: number, readonly cool: number }>()
  watch(() => run.value.pieces.map(p => p.pours.length).join(), () => {
    const piece = run.value.pieces.find(p => p.mix)
    moments.value = piece && feltFrom(run.value, piece)
  })
  const mould = computed(() => {
    if (!moments.value || !poured.value) return undefined
    if (time.value < moments.value.warm) return 'waits' as const
    return time.value < moments.value.cool ? 'warm' as const : 'cool' as const
  })
  const view = { run, bucket, felt, isStirred, time, poured, opened, mould }
  const does = { act, stirWith, pass, goBack, again, finish }
  return { setup, tool: expert.stir.tool, seed, pace, stirring, told, before, busy, ...view, ...does }
}
export type Practising = ReturnType<typeof usePractising>
