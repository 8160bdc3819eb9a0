import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { PourEvent } from '~core/pour/events'
import { needOf, type CastNeed, type CastSummary } from '~core/pour/projection'
import type { CastRow, PourRow } from '~contract/pour'
import { remembered } from '~/sync/kept'
import { latestOnly } from '~/sync/latest'
import { useClock } from './clock'
import { useLive } from './live'
import { useRecords } from './records'
import { useSession } from './session'

/** What a pending entry already changes about a cast, until the server's projection says the same. */
function withPending(cast: CastSummary, pending: readonly PourEvent[]): CastSummary {
  return pending.reduce((c, e) => {
    if (!('cast' in e.data) || e.data.cast !== c.id) return c
    switch (e.kind) {
      case 'opened':
        return { ...c, status: c.status === 'setting' ? 'opened' : c.status, openedAt: c.openedAt ?? e.happenedAt }
      case 'judged':
        return {
          ...c,
          status: e.data.verdict === 'waste' ? 'finished' : 'judged',
          verdict: e.data.verdict,
          defects: e.data.defects,
          note: e.data.note,
          openedAt: c.openedAt ?? e.happenedAt,
        }
      case 'finished':
        return { ...c, status: 'finished', finishedAt: e.happenedAt }
      default:
        return c
    }
  }, cast)
}

/** Lists of pours and casts for Today, the Shelf and the Logbook. */
export const usePours = defineStore('pours', () => {
  const rows = ref<PourRow[]>([])
  const castRows = ref<CastRow[]>([])
  const loaded = ref(false)
  const trouble = ref('')
  const clock = useClock(), records = useRecords()
  const latest = latestOnly()
  const who = () => useSession().key ?? ''

  /** What the server took since these lists were asked for: it stands until they are asked for again. */
  const answered = shallowRef<ReadonlyMap<string, readonly PourEvent[]>>(new Map())
  records.onAnswer((pour, { events }) => {
    answered.value = new Map(answered.value).set(pour, events)
  })

  async function load(): Promise<void> {
    const before = answered.value
    try {
      await latest(
        () => Promise.all([remembered(who(), 'GET pours'), remembered(who(), 'GET casts')]),
        ([pours, casts]) => {
          rows.value = pours.value
          castRows.value = casts.value
          answered.value = new Map([...answered.value].filter(([pour, events]) => before.get(pour) !== events))
        },
      )
      loaded.value = true
      trouble.value = ''
    }
    catch (error) {
      trouble.value = (error as Error).message
    }
  }
  const casts = computed(() =>
    castRows.value.map(row => ({
      ...row,
      cast: withPending(row.cast, [...answered.value.get(row.pour) ?? [], ...records.pendingOf(row.pour)]),
    })),
  )
  /** Casts with what they need now; recomputed as the clock moves, to the half minute. */
  const halfMinute = computed(() => Math.floor(clock.now / 30_000) * 30_000)
  const needs = computed<(CastRow & { need: CastNeed })[]>(() =>
    casts.value.map(row => ({ ...row, need: needOf(row.cast, halfMinute.value) })),
  )
  const live = computed(() => rows.value.filter(r => ['readying', 'pouring', 'setting'].includes(r.summary.status)))

  useLive().on((message) => {
    if (loaded.value && (message.what === 'pour' || message.what === 'caught-up')) void load()
  })
  return { rows, casts, needs, live, loaded, trouble, load }
})
