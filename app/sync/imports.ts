import { useTimeoutPoll } from '@vueuse/core'
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import type { ImportJob } from '~contract/import'
import { isUnderWay, type ImportKind } from '~contract/import-state'
import { ask, Refused } from './api'
import { useSession } from './session'

const ASKED_EVERY_MS = 700

/**
 * What is being brought in from files of these kinds, asked for while any is under way, and what came of it.
 * @param ended is told of each that has ended while this was looking
 */
export function useImports(kinds: readonly ImportKind[], ended: (job: ImportJob) => void = () => {}) {
  const jobs = shallowRef<readonly ImportJob[]>([])
  /** Of asking, which the next answer mends; and of what somebody did, which stays until they do something else. */
  const unread = ref(''), refused = ref(''), trouble = computed(() => refused.value || unread.value)
  const running = computed(() => jobs.value.filter(j => isUnderWay(j.state)))
  /** The one that was brought last, with what came of it. */
  const latest = computed(() => jobs.value[0])
  async function load(): Promise<void> {
    // Whoever only looks brings nothing in.
    if (!useSession().mayWrite) return
    try {
      const before = new Set(running.value.map(j => j.id))
      jobs.value = (await ask('GET imports')).filter(j => kinds.includes(j.kind))
      unread.value = ''
      for (const job of jobs.value) if (before.has(job.id) && !isUnderWay(job.state)) ended(job)
    }
    catch (error) {
      unread.value = (error as Error).message
    }
  }
  const { resume, pause } = useTimeoutPoll(load, ASKED_EVERY_MS)
  watch(() => running.value.length > 0, on => on ? resume() : pause())
  onMounted(load)
  async function tell(name: 'POST imports/:id/end' | 'POST imports/:id/out', id: string): Promise<void> {
    refused.value = ''
    try {
      await ask(name, { params: { id } })
    }
    catch (error) {
      if (error instanceof Refused) refused.value = error.message
      else throw error
    }
    await load()
  }
  return {
    jobs, latest, running, trouble, load,
    giveUp: (id: string) => tell('POST imports/:id/end', id),
    takeOut: (id: string) => tell('POST imports/:id/out', id),
  }
}
