import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { cuesOf, fallenDue, reachesFar } from '~core/bench/cues'
import { cueWords } from '~core/bench/cue-words'
import type { Instant } from '~core/pour/events'
import { sound } from '~/features/bench/telling'
import { useCache } from './cache'
import { useClock } from './clock'
import { useLibrary } from './library'
import { usePours } from './pours'

const MOST = 4
/**
 * Live pours that are followed from afar: the newest of a day. Opening times that were learnt stand in their records;
 * nothing is worked out anew here.
 */
const FOLLOWED = 8, DAY = 86_400_000

export interface Alarm {
  readonly id: string
  readonly at: Instant
  readonly kind: string
  readonly batch?: number
  /** The pour or job it belongs to, its name, where it is seen, and what is told. */
  readonly of: string
  readonly name: string
  readonly to: string
  readonly told: string
}

/** Moments of the jobs under way; what works out their windows is fetched once there is a job. */
function jobMoments() {
  const library = useLibrary(), pours = usePours(), work = shallowRef<typeof import('~/features/job/alarms')>()
  const jobs = computed(() => library.items.job.filter(j => !j.body.own))
  watch(() => jobs.value.length > 0, async (some) => {
    if (some) work.value ??= await import('~/features/job/alarms').catch(() => undefined)
  }, { immediate: true })
  return computed(() => work.value?.alarmsOfJobs(jobs.value, pours.rows) ?? [])
}

/** Moments of live pours and of jobs, told on every device where someone is signed in, whatever is on the screen. */
export const useAlarms = defineStore('alarms', () => {
  const pours = usePours(), clock = useClock(), cache = useCache()
  const followed = shallowRef<readonly string[]>([])
  const known = computed(() => followed.value.flatMap(id => cache.pourOf(id) ?? []))
  const told = shallowRef<ReadonlySet<string>>(new Set()), seen = shallowRef<ReadonlySet<string>>(new Set())
  const quiet = useLocalStorage('alarms-quiet', false)
  /** The pour on this device's bench, which tells its own cues; or the job on its screen. */
  const here = ref('')
  /** Nothing is passed over before it is known which pours are live. */
  let started = false, ready = false, before = 0
  const ofJobs = jobMoments()
  const cues = computed(() => [
    ...known.value.flatMap(p =>
      cuesOf(p.run, p.state).filter(reachesFar).map((c): Alarm => ({
        ...c, id: `${p.id}-${c.id}`, of: p.id, name: p.run.plan.name, to: `/bench/${p.id}`, told: cueWords(c),
      })),
    ),
    ...ofJobs.value,
  ])
  /** What was told and still holds: a cue that was acted on is no cue any more. */
  const standing = computed(() =>
    cues.value.filter(c => told.value.has(c.id) && !seen.value.has(c.id) && c.of !== here.value).sort((a, b) =>
      b.at - a.at,
    ).slice(0, MOST),
  )

  async function follow(ids: readonly string[]): Promise<void> {
    await Promise.all(ids.filter(id => !cache.held.has(id)).map(id => cache.load(id).catch(() => {})))
    followed.value = ids
    ready = true
  }
  function tick(now: number): void {
    if (!ready) return
    // After a jump or a night’s sleep each pour or job is told once, by its last.
    const due = [...new Set(cues.value.map(c => c.of))].filter(of => of !== here.value)
      .flatMap(of => fallenDue(cues.value.filter(c => c.of === of), before, now))
    before = now
    if (due.length === 0) return
    told.value = new Set([...told.value, ...due.map(c => c.id)])
    if (!quiet.value) sound()
  }
  /** Begins once someone is signed in. */
  function start(): void {
    if (started) return
    started = true
    before = clock.read()
    // The live ones of today, whatever becomes of them.
    const ids = computed(() =>
      pours.live.filter(p => (p.summary.startedAt ?? 0) > clock.read() - DAY).slice(0, FOLLOWED).map(p => p.id).join(),
    )
    watch([ids, () => pours.loaded], () => {
      if (pours.loaded) void follow(ids.value.split(',').filter(Boolean))
    }, { immediate: true })
    watch(() => clock.now, tick)
    if (!pours.loaded) void pours.load()
    const library = useLibrary()
    if (!library.loaded) void library.load()
  }
  const dismiss = (id: string) => {
    seen.value = new Set([...seen.value, id])
  }
  return { standing, quiet, here, start, dismiss }
})
