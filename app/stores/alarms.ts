import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { foldPour } from '~core/pour/timeline'
import type { PourAnswer } from '~shared/pour'
import { cuesOf, fallenDue, type Cue } from '~/features/bench/cues'
import { sound } from '~/features/bench/telling'
import { remembered } from '~/lib/kept'
import { useClock } from './clock'
import { usePours } from './pours'
import { useRecords } from './records'
import { useSession } from './session'

export interface Alarm { readonly id: string, readonly pour: string, readonly name: string, readonly words: string, readonly at: number }

/** Which cues reach someone who is not at the bench: those that do not wait for whoever stirs. */
const FAR = /-(hurry|late|set|warm|open|mix|stands|bond)$/
const MOST = 4
/** Live pours that are followed from afar: the newest of a day. Opening times that were learnt stand in their records; nothing is worked out anew here. */
const FOLLOWED = 8, DAY = 86_400_000

/** Moments of the live pours, told on every device where someone is signed in, whatever is on the screen. */
export const useAlarms = defineStore('alarms', () => {
  const pours = usePours(), clock = useClock(), records = useRecords()
  const known = shallowRef<ReadonlyMap<string, PourAnswer>>(new Map())
  const standing = ref<Alarm[]>([])
  const quiet = useLocalStorage('alarms-quiet', false)
  /** Nothing is passed over before it is known which pours are live. */
  let started = false, ready = false, before = 0
  const folded = computed(() => [...known.value.values()].map(p => ({ ...p, state: foldPour(p.run, [...p.events, ...records.pendingOf(p.id)]) })))
  const cues = computed(() => folded.value.flatMap(p => cuesOf(p.run, p.state).filter(c => FAR.test(c.id)).map((c): Cue & { pour: string, name: string } => ({ ...c, pour: p.id, name: p.run.plan.name }))))

  async function fetchAll(): Promise<void> {
    const who = useSession().key ?? ''
    const answers = await Promise.all(pours.live.filter(p => (p.summary.startedAt ?? 0) > clock.read() - DAY).slice(0, FOLLOWED).map(p => remembered<PourAnswer>(who, `pours/${p.id}`).then(a => a.value, () => undefined)))
    ready = true
    known.value = new Map(answers.flatMap(a => a ? [[a.id, a]] : []))
    // What a pour no longer waits for is no alarm any more.
    standing.value = standing.value.filter(a => known.value.has(a.pour))
  }
  function tell(alarm: Alarm): void {
    standing.value = [alarm, ...standing.value.filter(a => a.id !== alarm.id)].slice(0, MOST)
    if (quiet.value) return
    sound()
    if (document.visibilityState === 'hidden' && 'Notification' in globalThis && Notification.permission === 'granted') void new Notification(alarm.name, { body: alarm.words, tag: alarm.id })
  }
  function tick(now: number): void {
    if (!ready) return
    const due = cues.value.filter(c => fallenDue([c], before, now).length > 0)
    before = now
    // After a jump or a night’s sleep one pour is told once.
    const last = new Map(due.map(c => [c.pour, c]))
    for (const c of last.values()) tell({ id: `${c.pour}-${c.id}`, pour: c.pour, name: c.name, words: c.words, at: c.at })
  }
  /** Begins once someone is signed in. */
  function start(): void {
    if (started) return
    started = true
    before = clock.read()
    if (!pours.loaded) void pours.load()
    watch(() => pours.rows, () => void fetchAll(), { immediate: pours.loaded })
    watch(() => clock.now, tick)
  }
  const dismiss = (id: string) => {
    standing.value = standing.value.filter(a => a.id !== id)
  }
  return { standing, quiet, cues, start, dismiss }
})
