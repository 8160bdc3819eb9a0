import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch, type ShallowRef } from 'vue'
import type { WallAnswer } from '~contract/link'
import { untilItWorks } from '~/sync/again'
import { addressOf, ask, Refused } from '~/sync/api'
import { useCache } from '~/sync/cache'
import { useClock } from '~/sync/clock'
import { latestOnly } from '~/sync/latest'
import { learntRuns } from '~/sync/learning'
import { SILENT_MS, streaming } from '~/sync/stream'

/** How often it is looked whether the server is still heard. */
const LOOK_MS = 2500

/** Its pours, each with what was learnt of it. */
function learning(answer: ShallowRef<WallAnswer | undefined>) {
  const cache = useCache(), learnt = learntRuns()
  const folded = computed(() => (answer.value?.pours ?? []).flatMap(({ id }) => cache.pourOf(id) ?? []))
  watch(folded, (list) => {
    for (const p of list) void learnt.follow(p.id, p.run, p.state)
  })
  return computed(() =>
    folded.value.map(p => ({ ...p, runFor: (batch: number) => learnt.runFor(p.id, p.run, batch) })),
  )
}

/**
 * What a wall display shows: the live pours of one workshop, by a link and without signing in. What it last heard stays
 * on when the network goes.
 */
export const useWall = defineStore('wall', () => {
  const cache = useCache(), latest = latestOnly()
  const answer = shallowRef<WallAnswer>()
  const connected = ref(false)
  /** When the server was last heard, on this device's own clock. */
  const heardAt = ref(0)
  /** The link was taken back, or never was one. */
  const refused = ref('')
  let token = '', tried = 0
  let stream: ReturnType<typeof streaming> | undefined, looking: ReturnType<typeof setInterval> | undefined

  async function load(): Promise<boolean> {
    if (!stream) return true
    try {
      await latest(() => ask('GET wall/:token', { params: { token } }), (value) => {
        if (!stream) return
        answer.value = value
        cache.show(value.pours)
        useClock().anchor(value.clock.now, value.clock.rate)
      })
    }
    catch (error) {
      // What something on the way says to anything is not what the workshop says to this link.
      if (!(error instanceof Refused) || !error.ours || ![400, 404].includes(error.status)) throw error
      stop()
      refused.value = error.sentence
      answer.value = undefined
    }
    return true
  }
  const hurry = untilItWorks(load)
  function hear({ what }: { readonly what: string }): void {
    connected.value = what !== 'lost'
    if (connected.value) heardAt.value = Date.now()
    // A stream does not say why it broke: asking tells.
    if (what !== 'beat') hurry()
  }
  /** A stream that broke without a word. */
  function look(): void {
    if (Date.now() - Math.max(heardAt.value, tried) < SILENT_MS) return
    connected.value = false
    tried = Date.now()
    stream?.again()
  }
  function start(secret: string): void {
    token = secret
    tried = Date.now()
    stream = streaming(addressOf('GET wall/:token/live', { params: { token } }), hear)
    looking = setInterval(look, LOOK_MS)
  }
  function stop(): void {
    clearInterval(looking)
    stream?.close()
    stream = undefined
    connected.value = false
    cache.show([])
  }
  return { answer, pours: learning(answer), connected, heardAt, refused, start, stop }
})
