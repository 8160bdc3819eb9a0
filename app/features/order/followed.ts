import { computed, type Ref } from 'vue'
import { CLEAN, UNIT } from '~core/schedule/order'
import { followOrder, type Followed, type OrderPour } from '~core/schedule/following'
import type { OrderBody } from '~contract/order'
import { usePours } from '~/sync/pours'
import { unitOf } from './hours'

const MS = 1000

/** Where an order stands by its own pours. `key` changes whenever something of it does. @param zero of the plan */
export function useFollowed(order: () => OrderBody, zero: Ref<number>) {
  const pours = usePours()
  const own = computed(() => order().pours.flatMap((id): OrderPour[] => {
    const row = pours.rows.find(p => p.id === id)
    if (!row || row.summary.status === 'abandoned') return []
    const { wetAt, glyph, status } = row.summary, began = wetAt ?? row.summary.startedAt ?? 0
    const at = (mark: 'fill' | 'open') => {
      const found = glyph.find(m => m.id === mark)
      return began + MS * (found?.actual ?? (mark === 'open' ? found?.low : found?.value) ?? 0)
    }
    return [{
      casts: pours.casts.filter(c => c.pour === id).map(({ cast }) => ({
        mould: cast.mouldId, status: cast.status, openFrom: cast.openFrom, waste: cast.verdict === 'waste',
      })),
      filledBy: at('fill'), opensFrom: at('open'), inHand: status === 'readying' || status === 'pouring',
    }]
  }))
  const key = computed(() => JSON.stringify(own.value))
  const followed = computed((): Followed => followOrder(order().lines, own.value, {
    unitOf: at => unitOf(zero.value, at), cleaning: Math.ceil(CLEAN / UNIT),
  }))
  return Object.assign(followed, { key })
}
