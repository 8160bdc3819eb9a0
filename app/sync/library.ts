import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { LibraryBodies, LibraryItem, LibraryKind } from '~contract/library'
import { agedBag } from '~core/gypsum/bag-age'
import { taughtBag } from '~core/forecast/observations'
import type { PlanWorld, Plan } from '~core/plan/types'
import { ask } from '~/sync/api'
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
  async function shelf<K extends LibraryKind>(kind: K): Promise<LibraryItem<K>[]> {
    const { value } = await remembered(useSession().key ?? '', 'GET library/:kind', { params: { kind } })
    return value.filter((item): item is LibraryItem<K> => item.kind === kind)
  }

  async function load(): Promise<void> {
    try {
      await latest(
        () =>
          Promise.all([shelf('mould'), shelf('bucket'), shelf('bag')]),
        ([mould, bucket, bag]) => {
          items.value = { mould, bucket, bag }
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
    await ask('PUT library/:kind/:id', { params: { kind, id }, body: { body, revision } })
    await load()
  }
  async function archive(kind: LibraryKind, id: string): Promise<void> {
    await ask('DELETE library/:kind/:id', { params: { kind, id } })
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
