import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { LogbookQuery, LogbookView } from '~contract/logbook'
import type { PourRow } from '~contract/pour'
import { ask, newId } from '~/sync/api'
import { useChanges } from '~/sync/changes'
import { untilItWorks } from '~/sync/again'
import { remembered } from '~/sync/kept'
import { latestOnly } from '~/sync/latest'
import { useLive } from '../../sync/live'
import { useSession } from '../../sync/session'

export const EVERYTHING: LogbookQuery = { find: '', facts: [] }

/** As an address: what is looked for can be linked to and kept. */
export function queryWords({ find, facts, from, to }: LogbookQuery): string {
  const words = new URLSearchParams(facts.map(f => ['facts', f]))
  if (find.trim()) words.set('find', find.trim())
  if (from) words.set('from', from)
  if (to) words.set('to', to)
  return words.toString()
}

/** Views that were kept. */
function keptViews(who: () => string) {
  const told = ref<readonly LogbookView[]>([]), changes = useChanges(), changed = changes.ofKind('view')
  const views = computed<readonly LogbookView[]>(() => {
    const mine = changed.value.flatMap(c => c.target.what === 'view' ? [{ id: c.target.id, body: c.body }] : [])
    return [
      ...told.value.filter(v => !mine.some(m => m.id === v.id)),
      ...mine.flatMap(({ id, body }) => body ? [{ ...body as LogbookView, id }] : []),
    ].sort((a, b) => a.name.localeCompare(b.name))
  })
  async function loadViews(): Promise<void> {
    told.value = (await remembered(who(), 'GET logbook/views').catch(() => ({ value: [] }))).value
  }
  changes.onStands(({ target, answer }) => {
    if (target.what !== 'view') return
    told.value = [...told.value.filter(v => v.id !== target.id), ...answer ? [answer as LogbookView] : []]
  })
  function keepView(name: string, query: LogbookQuery): Promise<void> {
    const known = views.value.find(v => v.name === name)?.id
    return changes.write({ target: { what: 'view', id: known ?? newId() }, body: { name, query }, isNew: !known })
  }
  const dropView = (id: string): Promise<void> => changes.write({ target: { what: 'view', id } })
  return { views, loadViews, keepView, dropView }
}

/** What was found in the logbook, a page at a time, and the views that were kept. */
export const useLogbook = defineStore('logbook', () => {
  const rows = shallowRef<readonly PourRow[]>([]),
    count = ref(0),
    next = ref<string>(),
    loaded = ref(false),
    trouble = ref('')
  const asked = shallowRef(EVERYTHING), latest = latestOnly(), who = () => useSession().key ?? ''

  let begun = false
  /** @returns whether the server said it just now */
  async function look(query: LogbookQuery): Promise<boolean> {
    let fresh = true
    begun = true
    asked.value = query
    try {
      await latest(() => remembered(who(), 'GET logbook/pours', { query }), ({ value, fromHere }) => {
        fresh = !fromHere
        rows.value = value.rows
        count.value = value.count ?? 0
        next.value = value.next
      })
      loaded.value = true
      trouble.value = ''
    }
    catch (error) {
      trouble.value = (error as Error).message
      fresh = false
    }
    return fresh
  }
  /** The next page, behind what is there. */
  async function more(): Promise<void> {
    if (!next.value) return
    const after = next.value
    try {
      await latest(() => ask('GET logbook/pours', { query: { ...asked.value, after } }), (page) => {
        const there = new Set(rows.value.map(r => r.id))
        rows.value = [...rows.value, ...page.rows.filter(r => !there.has(r.id))]
        next.value = page.next
      })
      trouble.value = ''
    }
    catch (error) {
      trouble.value = (error as Error).message
    }
  }
  const heard = untilItWorks(() => look(asked.value))
  useLive().on((message) => {
    // A list that was read on is left alone: nothing may move under a reader.
    // Also while an answer is on its way: it may be older than what is told here.
    if (begun && rows.value.length <= 50 && ['pour', 'pours', 'caught-up'].includes(message.what))
      heard()
  })
  return { rows, count, next, loaded, trouble, look, more, ...keptViews(who) }
})
