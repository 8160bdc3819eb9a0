import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { DoingId, Look, SeatAnswer, SentResult } from '~contract/classroom'
import { untilItWorks } from '~/sync/again'
import { actAs, addressOf, ask, Refused } from '~/sync/api'
import { useClock } from '~/sync/clock'
import { latestOnly } from '~/sync/latest'
import { useSession } from '~/sync/session'
import { streaming } from '~/sync/stream'

/** A seat in a class, as this phone has it: what the class is given to do, where one is in it, and what came of it. */

export interface Where { readonly at: DoingId, readonly done?: number, readonly of?: number, readonly look?: Look }

/** Whoever has no seat is at the door of the class. */
const isNobodys = (error: unknown) => error instanceof Refused && error.ours && [401, 404].includes(error.status)

/** What waits to be told: only the latest place, and every result until it was taken. */
function telling(answer: () => SeatAnswer | undefined) {
  const results = useLocalStorage<readonly SentResult[]>('seat-results', [])
  let where: Where | undefined
  async function sendPlace(): Promise<boolean> {
    const now = where, here = answer()
    if (!now || !here) return true
    await ask('PUT seat/doing', { body: { task: here.class.tasks, ...now } })
    return now === where
  }
  const hurryPlace = untilItWorks(sendPlace)
  async function sendResults(): Promise<boolean> {
    for (const body of results.value) {
      await ask('POST seat/results', { body }).catch((error: unknown) => {
        // What the server will not take it will not take tomorrow either: the class has gone on.
        if (!(error instanceof Refused && error.ours && error.status < 500 && error.status !== 429)) throw error
      })
      results.value = results.value.filter(r => r !== body)
    }
    return true
  }
  const hurryResults = untilItWorks(sendResults)
  return {
    results,
    isAt(now: Where) {
      where = now
      hurryPlace()
    },
    cameOf(result: SentResult) {
      results.value = [...results.value.filter(r => r.task !== result.task), result]
      hurryResults()
    },
    catchUp: hurryResults,
  }
}

export const useSeat = defineStore('seat', () => {
  const kept = useLocalStorage<SeatAnswer | null>('seat', null, { serializer: { read: readKept, write: JSON.stringify } })
  const answer = shallowRef<SeatAnswer | undefined>(kept.value ?? undefined)
  const connected = ref(false), gone = ref(''), help = ref(false), latest = latestOnly()
  const told = telling(() => answer.value)
  let stream: ReturnType<typeof streaming> | undefined, place: Where = { at: 'began' }

  function take(value: SeatAnswer): void {
    const before = answer.value
    answer.value = kept.value = value
    gone.value = ''
    useClock().anchor(value.clock.now, value.clock.rate)
    useSession().lent = value.units
    if (before?.class.tasks !== value.class.tasks) {
      help.value = false
      isAt({ at: 'began' })
    }
  }
  async function load(): Promise<boolean> {
    try {
      await latest(() => ask('GET seat'), take)
    }
    catch (error) {
      if (!isNobodys(error)) throw error
      leaveHere((error as Refused).sentence)
    }
    return true
  }
  const hurry = untilItWorks(load)
  /** Where one is in the task, and whether one asked for help. */
  function isAt(where: Where): void {
    place = where
    told.isAt({ ...where, ...help.value && { look: 'help' } })
  }
  function askForHelp(wanted: boolean): void {
    help.value = wanted
    isAt(place)
  }
  function leaveHere(why: string): void {
    stop()
    answer.value = undefined
    kept.value = null
    gone.value = why
  }
  function start(): void {
    actAs(undefined)
    if (stream) return
    if (answer.value) useSession().lent = answer.value.units
    hurry()
    told.catchUp()
    stream = streaming(addressOf('GET seat/live'), ({ what }) => {
      connected.value = what !== 'lost'
      if (what !== 'beat') hurry()
    })
  }
  function stop(): void {
    stream?.close()
    stream = undefined
    connected.value = false
  }
  async function join(code: string, name: string): Promise<void> {
    actAs(undefined)
    take(await ask('POST seat', { body: { code, name } }))
  }
  async function leave(): Promise<void> {
    await ask('DELETE seat')
    leaveHere('')
  }
  const task = computed(() => answer.value?.class.task)
  const tells = { isAt, askForHelp, cameOf: told.cameOf, waiting: told.results }
  return { answer, task, connected, gone, help, ...tells, take, start, stop, join, leave, load }
})

function readKept(text: string): SeatAnswer | null {
  try {
    return JSON.parse(text) as SeatAnswer | null
  }
  catch {
    return null
  }
}
