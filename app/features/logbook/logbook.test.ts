import 'fake-indexeddb/auto'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { LogbookPage } from '~contract/logbook'
import { queryWords, useLogbook } from './logbook'
import { useLive } from '../../sync/live'
import { useSession } from '../../sync/session'

/** A server whose answers the test gives, one question at a time. */
const asked: { readonly url: string, readonly method: string, answer: (body: unknown, status?: number) => void }[] = []
class FakeStream {
  static last?: FakeStream
  static readonly CLOSED = 2
  readyState = 1
  onmessage?: (e: { data: string }) => void
  constructor() {
    FakeStream.last = this
  }

  addEventListener(): void {}
  close(): void {}
}
const page = (names: readonly string[], next?: string): LogbookPage => ({
  rows: names.map(id => ({ id, summary: { name: id } })) as never,
  count: names.length,
  next,
})
const tellLive = () => FakeStream.last!.onmessage!({ data: JSON.stringify({ what: 'pour', pour: 'p', seq: 1 }) })

beforeEach(() => {
  asked.length = 0
  vi.stubGlobal('fetch', (url: string, init?: { method?: string }) =>
    new Promise<Response>((resolve) => {
      asked.push({
        url,
        method: init?.method ?? 'GET',
        answer: (body, status = 200) => resolve(new Response(JSON.stringify(body), { status })),
      })
    }))
  vi.stubGlobal('EventSource', FakeStream)
  vi.stubGlobal('addEventListener', () => {})
  vi.stubGlobal('document', { addEventListener: () => {}, visibilityState: 'visible' })
  setActivePinia(createPinia())
  useSession().facts = {
    person: { id: 'me', name: 'Me', email: 'm@example.org', role: 'member' },
    workshop: { id: 'w', name: 'W', units: { mass: 'g', volume: 'ml', length: 'mm', temperature: 'C' } },
    clock: { now: 0, rate: 1 },
    demo: false,
    needsOwner: false,
  }
  useLive().start()
})
afterEach(() => {
  vi.unstubAllGlobals()
})
const EVERYTHING = { find: '', facts: [] }

describe('what is looked for', () => {
  it('is an address that can be linked to, and the same whatever the blanks', () => {
    expect(queryWords({ find: ' two words ', facts: ['mould:a', 'verdict:waste'], from: '2026-01' })).toBe(
      'facts=mould%3Aa&facts=verdict%3Awaste&find=two+words&from=2026-01',
    )
    expect(queryWords(EVERYTHING)).toBe('')
  })

  it('the last question counts, even when an earlier answer comes after it', async () => {
    const book = useLogbook(),
      first = book.look({ find: 'a', facts: [] }),
      second = book.look({ find: 'ab', facts: [] })
    asked[1]!.answer(page(['right']))
    asked[0]!.answer(page(['wrong']))
    await Promise.all([first, second])
    expect(book.rows.map(r => r.id)).toEqual(['right'])
  })

  it('what is told while the first answer is on its way is asked for again', async () => {
    const book = useLogbook(), first = book.look(EVERYTHING)
    tellLive()
    expect(asked).toHaveLength(2)
    asked[0]!.answer(page(['old']))
    asked[1]!.answer(page(['old', 'new']))
    await first
    expect(book.rows.map(r => r.id)).toEqual(['old', 'new'])
  })

  it('goes on behind what is there, each pour once; a list that was read on stays as it is', async () => {
    const book = useLogbook(), first = book.look(EVERYTHING), names = Array.from({ length: 50 }, (_, i) => `p${i}`)
    asked[0]!.answer(page(names, '5.x'))
    await first
    const more = book.more()
    expect(asked[1]!.url).toContain('after=5.x')
    asked[1]!.answer(page(['p49', 'p50']))
    await more
    expect(book.rows.map(r => r.id)).toEqual([...names, 'p50'])
    expect(book.next).toBeUndefined()
    await book.more()
    tellLive()
    expect(asked).toHaveLength(2)
  })

  it('trouble is said, and what was found before stays', async () => {
    const book = useLogbook(), first = book.look(EVERYTHING)
    asked[0]!.answer(page(['there']))
    await first
    const again = book.look({ find: 'x', facts: [] })
    asked[1]!.answer({ data: { sentence: 'Sign in first.' } }, 401)
    await again
    expect(book.trouble).toBe('Sign in first.')
    expect(book.rows.map(r => r.id)).toEqual(['there'])
  })
})

describe('kept views', () => {
  it('of the same name are kept in the same place', async () => {
    const book = useLogbook(), load = book.loadViews()
    asked[0]!.answer([{ id: 'v1', name: 'Waste', query: EVERYTHING }])
    await load
    await book.keepView('Waste', { find: 'w', facts: [] })
    await book.keepView('Other', EVERYTHING)
    expect(book.views.map(v => [v.name, v.query.find, v.id === 'v1'])).toEqual([['Other', '', false], ['Waste', 'w', true]])
    await book.dropView('v1')
    expect(book.views.map(v => v.name)).toEqual(['Other'])
  })
})
