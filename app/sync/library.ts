import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { LibraryBodies, LibraryItem, LibraryKind } from '~contract/library'
import { agedBag } from '~core/gypsum/bag-age'
import { taughtBag } from '~core/forecast/observations'
import type { PlanWorld, Plan } from '~core/plan/types'
import { api } from '~/sync/api'
import { remembered } from '~/sync/kept'
import { latestOnly } from '~/sync/latest'
import { useLive } from './live'
import { useClock } from './clock'
import { useSession } from './session'

type Shelves = { [K in LibraryKind]: LibraryItem<K>[] }

/** Moulds, buckets and bags of the workshop. */
export const useLibrary = defineStore('library', () => {
  const items = ref<Shelves>({ mould: [], bucket: [], bag: [] })
  const loaded = ref(false)
  const trouble = ref('')
  const latest = latestOnly()
  const ask = <T>(path: string) => remembered<T>(useSession().key ?? '', path)

  async function load(): Promise<void> {
    try {
      await latest(
        () =>
          Promise.all([
            ask<LibraryItem<'mould'>[]>('library/mould'),
            ask<LibraryItem<'bucket'>[]>('library/bucket'),
            ask<LibraryItem<'bag'>[]>('library/bag'),
          ]),
        ([mould, bucket, bag]) => {
          items.value = { mould: mould.value, bucket: bucket.value, bag: bag.value }
        },
      )
      loaded.value = true
      trouble.value = ''
    }
    catch (error) {
      trouble.value = (error as Error).message
    }
  }
  async function save<K extends LibraryKind>(
    kind: K,
    id: string,
    body: LibraryBodies[K],
    revision: number,
  ): Promise<void> {
    await api(`library/${kind}/${id}`, { method: 'PUT', body: { body, revision } })
    await load()
  }
  async function archive(kind: LibraryKind, id: string): Promise<void> {
    await api(`library/${kind}/${id}`, { method: 'DELETE' })
    await load()
  }
  /** Bags age by the workshop's clock, a day at a time. */
  const clock = useClock(), today = computed(() => clock.now - clock.now % 86_400_000)
  /** The things a plan names, as the core wants them. */
  function worldOf(plan: Plan): PlanWorld {
    const { mould, bucket, bag } = items.value
    const facts = <T extends { id: string, body: object }>(item: T | undefined) =>
      item && { ...item.body, id: item.id } as T['body'] & { id: string }
    const bagOf = (id: string | undefined) => {
      const item = bag.find(b => b.id === id)
      return item && taughtBag(agedBag({ ...item.body, id: item.id }, today.value), item.taught ?? [])
    }
    return {
      moulds: plan.fills.flatMap(f => facts(mould.find(m => m.id === f.mould)) ?? []),
      bucket: facts(bucket.find(b => b.id === plan.bucket)), bag: bagOf(plan.bag),
    }
  }
  useLive().on((message) => {
    if (loaded.value && (message.what === 'library' || message.what === 'caught-up')) void load()
  })
  return { items, loaded, trouble, load, save, archive, worldOf }
})
