import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { LogbookQuery, LogbookView } from '~contract/logbook'
import type { PourRow } from '~contract/pour'
import { ask, newId } from '~/sync/api'
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
  const views = ref<LogbookView[]>([])
  async function loadViews(): Promise<void> {
    views.value = (await remembered(who(), 'GET logbook/views').catch(() => ({ value: [] }))).value
  }
  async function keepView(name: string, query: LogbookQuery): Promise<void> {
    await ask('PUT logbook/views/:id', {
      params: { id: views.value.find(v => v.name === name)?.id ?? newId() },
      body: { name, query },
    })
    await loadViews()
  }
  async function dropView(id: string): Promise<void> {
    await ask('DELETE logbook/views/:id', { params: { id } })
    await loadViews()
  }
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
  async function look(query: LogbookQuery): Promise<void> {
    begun = true
    asked.value = query
    try {
      await latest(() => remembered(who(), 'GET logbook/pours', { query }), ({ value }) => {
        rows.value = value.rows
        count.value = value.count ?? 0
        next.value = value.next
      })
      loaded.value = true
      trouble.value = ''
    }
    catch (error) {
      trouble.value = (error as Error).message
    }
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
  useLive().on((message) => {
    // A list that was read on is left alone: nothing may move under a reader.
    // Also while an answer is on its way: it may be older than what is told here.
    if (begun && rows.value.length <= 50 && ['pour', 'pours', 'caught-up'].includes(message.what))
      void look(asked.value)
  })
  return { rows, count, next, loaded, trouble, look, more, ...keptViews(who) }
})
