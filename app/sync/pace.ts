import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import type { Pace } from '~core/plan/batches/pace'
import { remembered } from './kept'
import { latestOnly } from './latest'
import { useSession } from './session'

/** The pace of who is signed in, as their own pours have it: what plans are timed by. */
export const usePace = defineStore('pace', () => {
  const known = shallowRef<Pace>(), session = useSession(), latest = latestOnly()
  /** What cannot be heard is not missed: a plan is then timed by everybody's pace. */
  async function load(): Promise<void> {
    try {
      await latest(() => remembered(session.key ?? '', 'GET pace'), ({ value }) => {
        known.value = Object.keys(value).length > 0 ? value : undefined
      })
    }
    catch {
      known.value = undefined
    }
  }
  return { known, load }
})
