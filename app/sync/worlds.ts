import { computed } from 'vue'
import type { LibraryItem } from '~contract/library'
import { dayOfYear } from '~core/drying/places'
import { taughtBag } from '~core/forecast/observations'
import { agedBag } from '~core/gypsum/bag-age'
import { withFace } from '~core/mould/gauge/face'
import type { Plan, PlanWorld } from '~core/plan/types'
import { useClock } from './clock'
import { useLibrary } from './library'
import { usePace } from './pace'

/**
 * The things a plan names, as the core wants them. Bags age by the workshop's clock, a day at a time. Apart from the
 * library itself, so that a page of pictures does not bring the forecast along.
 */
export function useWorlds() {
  const library = useLibrary(), pace = usePace(), clock = useClock()
  const today = computed(() => clock.now - clock.now % 86_400_000)
  return (plan: Plan): PlanWorld => {
    const { mould, bucket, bag } = library.items, mouldFacts = (item: LibraryItem<'mould'> | undefined) =>
      item && withFace({ ...item.body, id: item.id })
    const facts = <T extends { id: string, body: object }>(item: T | undefined) =>
      item && { ...item.body, id: item.id } as T['body'] & { id: string }
    const bagOf = (id: string | undefined) => {
      const item = bag.find(b => b.id === id)
      return item && taughtBag(agedBag({ ...item.body, id: item.id }, today.value), item.taught ?? [])
    }
    return {
      moulds: plan.fills.flatMap(f => mouldFacts(mould.find(m => m.id === f.mould)) ?? []),
      bucket: facts(bucket.find(b => b.id === plan.bucket)), bag: bagOf(plan.bag),
      day: dayOfYear(today.value),
      ...pace.known && { pace: pace.known },
    }
  }
}
