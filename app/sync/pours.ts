import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import type { PourEvent } from '~core/pour/events'
import { isForgotten } from '~core/pour/forgotten'
import { needOf, type CastNeed, type CastSummary } from '~core/pour/projection'
import type { CastRow, PourRow } from '~contract/pour'
import { untilItWorks } from '~/sync/again'
import { remembered } from '~/sync/kept'
import { latestOnly } from '~/sync/latest'
import { useCache } from './cache'
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

/** Newest first. */
const byStart = (a: PourRow, b: PourRow) => (b.summary.startedAt ?? 0) - (a.summary.startedAt ?? 0)

/** All that is said of a pour follows from its entries. */
const isSamePour = (a: PourRow, b: PourRow) => a.id === b.id && a.seq === b.seq
const isSameCast = (a: CastRow, b: CastRow) =>
  a.pour === b.pour && a.cast.id === b.cast.id && JSON.stringify(a) === JSON.stringify(b)
/** A list that stays the same thing while it says the same: nothing is drawn anew for having been asked again. */
const keepSame = <T>(before: readonly T[], now: readonly T[], isSame: (a: T, b: T) => boolean): readonly T[] =>
  before.length === now.length && now.every((row, i) => isSame(before[i]!, row)) ? before : now

/** What the server last said of pours and their casts, and whether it did. */
function listed() {
  const rows = shallowRef<readonly PourRow[]>([]), castRows = shallowRef<readonly CastRow[]>([])
  const loaded = ref(false), trouble = ref('')
  const latest = latestOnly(), who = () => useSession().key ?? ''
  /** @returns whether the server said it just now */
  async function load(): Promise<boolean> {
    let told = true
    try {
      await latest(
        () => Promise.all([remembered(who(), 'GET pours'), remembered(who(), 'GET casts')]),
        ([pours, casts]) => {
          rows.value = keepSame(rows.value, pours.value, isSamePour)
          castRows.value = keepSame(castRows.value, casts.value, isSameCast)
          told = !pours.fromHere && !casts.fromHere
        },
      )
      loaded.value = true
      trouble.value = ''
    }
    catch (error) {
      trouble.value = (error as Error).message
      told = false
    }
    return told
  }
  return { rows, castRows, loaded, trouble, load }
}

/**
 * Lists of pours and casts for Today, the Shelf and the Logbook: as the server told them, and of every pour that this
 * browser holds whole, as it is folded here. A pour that changes is asked for alone.
 */
export const usePours = defineStore('pours', () => {
  const { rows: told, castRows, loaded, trouble, load } = listed()
  const clock = useClock(), records = useRecords(), cache = useCache()
  const toldAt = computed(() => new Map(told.value.map(r => [r.id, r.seq])))
  /** Pours that are known here at least as well as the server told them. */
  const ours = computed(() =>
    new Map([...cache.held.values()].filter(p => p.seq >= (toldAt.value.get(p.id) ?? 0))
      .map(p => [p.id, cache.pourOf(p.id)!])),
  )
  const rows = computed<readonly PourRow[]>(() => [
    ...told.value.filter(r => !ours.value.has(r.id)),
    ...[...ours.value.values()].map(p => ({ id: p.id, seq: p.seq, summary: p.summary })),
  ].sort(byStart))
  const casts = computed<readonly CastRow[]>(() => [
    ...castRows.value.filter(r => !ours.value.has(r.pour)).map(row => ({
      ...row,
      cast: withPending(row.cast, [...cache.loose.get(row.pour) ?? [], ...records.pendingOf(row.pour)]),
    })),
    ...[...ours.value.values()].filter(p => p.state.status !== 'abandoned').flatMap(p =>
      p.casts.map(cast => ({ pour: p.id, pourName: p.summary.name, cast })),
    ),
  ])
  /** Casts with what they need now; recomputed as the clock moves, to the half minute. */
  const halfMinute = computed(() => Math.floor(clock.now / 30_000) * 30_000)
  const needs = computed<(CastRow & { need: CastNeed })[]>(() =>
    casts.value.map(row => ({ ...row, need: needOf(row.cast, halfMinute.value) })),
  )
  const unfinished = computed(() =>
    rows.value.filter(r => ['readying', 'pouring', 'setting'].includes(r.summary.status)),
  )
  /** At the bench, and of which nothing was told for a day. */
  const forgotten = computed(() => unfinished.value.filter(r => isForgotten(r.summary, clock.halfHour)))
  const live = computed(() => unfinished.value.filter(r => !forgotten.value.includes(r)))

  watch(() => useSession().key, () => {
    told.value = []
    castRows.value = []
    loaded.value = false
  }, { flush: 'sync' })
  const heard = untilItWorks(load)
  useLive().on((message) => {
    if (!loaded.value) return
    if (message.what === 'caught-up' || message.what === 'pours') heard()
    // Who holds a pour is told its entries; any other is asked for alone, once.
    else if (message.what === 'pour' && !cache.held.has(message.pour)) cache.loadNewer(message.pour)
  })
  return { rows, casts, needs, live, forgotten, loaded, trouble, load }
})
