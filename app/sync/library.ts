import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { LibraryBodies, LibraryItem, LibraryKind } from '~contract/library'
import { untilItWorks } from '~/sync/again'
import { remembered } from '~/sync/kept'
import { latestOnly } from '~/sync/latest'
import { useChanges, type Stands } from './changes'
import type { Change, Version } from './kept-changes'
import { useLive } from './live'
import { overtaking } from './overtaken'
import { useSession } from './session'

type Shelves = { [K in LibraryKind]: LibraryItem<K>[] }
const byName = (a: LibraryItem, b: LibraryItem) => a.body.name.localeCompare(b.body.name)

/** What the server told of one kind, with what was changed here laid over it. */
function withChanges<K extends LibraryKind>(
  kind: K,
  told: readonly LibraryItem<K>[],
  changed: readonly Change[],
): LibraryItem<K>[] {
  const mine = changed.flatMap(c =>
    c.target.what === 'item' && c.target.kind === kind ? [{ ...c, ...c.target }] : [],
  )
  if (mine.length === 0) return [...told]
  const known = new Map(told.map(i => [i.id, i]))
  for (const { id, body, stamp } of mine) {
    if (body === undefined) known.delete(id)
    else known.set(id, { ...known.get(id) ?? { id, kind, revision: 0 }, body, stamp } as LibraryItem<K>)
  }
  return [...known.values()].sort(byName)
}

async function shelf<K extends LibraryKind>(kind: K) {
  const { value, fromHere } = await remembered(useSession().key ?? '', 'GET library/:kind', { params: { kind } })
  return { fromHere, items: value.filter((item): item is LibraryItem<K> => item.kind === kind) }
}

/** Moulds, buckets, bags, orders, jobs and pages of the workshop. */
export const useLibrary = defineStore('library', () => {
  const changes = useChanges(), told = ref<Shelves>({ mould: [], bucket: [], bag: [], order: [], job: [], page: [] })
  const changed = changes.ofKind('item')
  const items = computed<Shelves>(() => ({
    mould: withChanges('mould', told.value.mould, changed.value),
    bucket: withChanges('bucket', told.value.bucket, changed.value),
    bag: withChanges('bag', told.value.bag, changed.value),
    order: withChanges('order', told.value.order, changed.value),
    job: withChanges('job', told.value.job, changed.value),
    page: withChanges('page', told.value.page, changed.value),
  }))
  const loaded = ref(false)
  const trouble = ref('')
  const latest = latestOnly()
  /** What it says of uses and pours comes with the next list. */
  const single = overtaking(({ target, answer, revision }: Stands) => {
    if (target.what !== 'item') return
    const { kind, id } = target, before = told.value[kind].find(i => i.id === id),
      now = answer ? [{ ...before, ...answer as LibraryItem }] : []
    if (answer && before && before.revision > revision) return
    told.value = {
      ...told.value,
      [kind]: [...told.value[kind].filter(i => i.id !== id), ...now].sort(byName),
    }
  })

  /** @returns whether the server said it just now */
  async function load(): Promise<boolean> {
    let fresh = true
    try {
      await single.during(layAgain => latest(
        () =>
          Promise.all([shelf('mould'), shelf('bucket'), shelf('bag'), shelf('order'), shelf('job'), shelf('page')]),
        ([mould, bucket, bag, order, job, page]) => {
          told.value = {
            mould: mould.items, bucket: bucket.items, bag: bag.items, order: order.items, job: job.items,
            page: page.items,
          }
          fresh = [mould, bucket, bag, order, job, page].every(s => !s.fromHere)
          layAgain()
        },
      ))
      loaded.value = true
      trouble.value = ''
    }
    catch (error) {
      trouble.value = (error as Error).message
      fresh = false
    }
    return fresh
  }
  /** Kept here, then sent. @throws Refused when the server will not take it as it is */
  const save = <K extends LibraryKind>(
    kind: K,
    id: string,
    body: LibraryBodies[K],
    from?: Version,
  ): Promise<void> => changes.write({ target: { what: 'item', kind, id }, body, from, isNew: from === undefined })
  const archive = (kind: LibraryKind, id: string, from?: Version): Promise<void> =>
    changes.write({ target: { what: 'item', kind, id }, from })
  changes.onStands(single.heard)
  const heard = untilItWorks(load)
  useLive().on((message) => {
    if (loaded.value && (message.what === 'library' || message.what === 'caught-up')) heard()
  })
  return { told, items, loaded, trouble, load, save, archive }
})
