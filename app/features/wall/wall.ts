import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { foldPour } from '~core/pour/fold'
import type { WallAnswer } from '~contract/link'
import { addressOf, ask, Refused } from '~/sync/api'
import { latestOnly } from '~/sync/latest'
import { learntRuns } from '~/sync/learning'
import { useClock } from '../../sync/clock'

const AGAIN_MS = 5000

/**
 * What a wall display shows: the live pours of one workshop, by a link and without signing in. What it last heard stays
 * on when the network goes.
 */
export const useWall = defineStore('wall', () => {
  const answer = shallowRef<WallAnswer>()
  const connected = ref(false)
  /** The link was taken back, or never was one. */
  const refused = ref('')
  let token = '', source: EventSource | undefined, again: ReturnType<typeof setTimeout> | undefined
  const latest = latestOnly()

  async function load(): Promise<void> {
    try {
      await latest(() => ask('GET wall/:token', { params: { token } }), (value) => {
        answer.value = value
        useClock().anchor(value.clock.now, value.clock.rate)
      })
    }
    catch (error) {
      if (!(error instanceof Refused) || (error.status !== 404 && error.status !== 400)) return
      refused.value = error.sentence
      answer.value = undefined
      stop()
    }
  }
  function start(secret: string): void {
    token = secret
    source = new EventSource(addressOf('GET wall/:token/live', { params: { token } }))
    source.addEventListener('hello', () => {
      connected.value = true
      void load()
    })
    source.onmessage = () => void load()
    source.onerror = () => {
      connected.value = false
      if (source?.readyState !== EventSource.CLOSED) return
      source = undefined
      // Refused or unreached: asking tells which.
      void load().then(() => {
        if (!refused.value) again = setTimeout(() => start(token), AGAIN_MS)
      })
    }
  }
  function stop(): void {
    clearTimeout(again)
    source?.close()
    source = undefined
    connected.value = false
  }
  const learning = learntRuns()
  const folded = computed(() => (answer.value?.pours ?? []).map(p => ({ ...p, state: foldPour(p.run, p.events) })))
  watch(folded, (list) => {
    for (const p of list) void learning.follow(p.id, p.run, p.state)
  })
  const pours = computed(() =>
    folded.value.map(p => ({ ...p, runFor: (batch: number) => learning.runFor(p.id, p.run, batch) })),
  )
  return { answer, pours, connected, refused, load, start, stop }
})
