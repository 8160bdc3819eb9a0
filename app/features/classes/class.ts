import { onBeforeUnmount, onMounted, ref, shallowRef } from 'vue'
import type { ChangeClass, ClassAnswer, SeatFacts, Task } from '~contract/classroom'
import { untilItWorks } from '~/sync/again'
import { ask, Refused } from '~/sync/api'
import { latestOnly } from '~/sync/latest'
import { useLive } from '~/sync/live'

/** A phone that was not heard for so long is away. */
const AWAY_MS = 70_000

/** Why somebody should go to this seat now, if they should. @param now on the server’s clock */
export function lookOf(seat: SeatFacts, tasks: number): 'help' | 'stiff' | 'trouble' | undefined {
  return seat.doing?.task === tasks ? seat.doing.look : undefined
}
export const isAway = (seat: SeatFacts, now: number): boolean => seat.phone && now - (seat.heardAt ?? 0) > AWAY_MS

/** One class as whoever leads it has it, kept up with what its seats tell. */
export function useClass(id: string) {
  const answer = shallowRef<ClassAnswer>(), trouble = ref(''), latest = latestOnly(), live = useLive()
  async function load(): Promise<boolean> {
    try {
      await latest(() => ask('GET classes/:id', { params: { id } }), (value) => {
        answer.value = value
        trouble.value = ''
      })
    }
    catch (error) {
      // While the records are away the class stays on the screen as it was last told.
      if (!(error instanceof Refused) || !error.ours || error.status >= 500) throw error
      trouble.value = error.sentence
      answer.value = undefined
    }
    return true
  }
  const hurry = untilItWorks(load)
  let off: (() => void) | undefined
  onMounted(() => {
    off = live.on((message) => {
      if ((message.what === 'class' || message.what === 'seats') && message.class === id) hurry()
      if (message.what === 'caught-up') hurry()
      if (message.what === 'pour' && answer.value?.all.some(s => s.kit?.pour === message.pour)) hurry()
    })
    hurry()
  })
  onBeforeUnmount(() => off?.())
  async function change(body: ChangeClass): Promise<void> {
    await ask('PATCH classes/:id', { params: { id }, body })
    await load()
  }
  return { answer, trouble, load, change, give: (task: Task) => change({ task } as ChangeClass) }
}
export type LedClass = ReturnType<typeof useClass>
