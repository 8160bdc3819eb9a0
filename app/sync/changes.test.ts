import 'fake-indexeddb/auto'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { BucketBody } from '~contract/library'
import { useChanges } from './changes'
import { useClock } from './clock'
import { changeTaken, nameOf, otherOf, settle, type Change } from './kept-changes'
import { useLibrary } from './library'
import { keepPhoto, photosOf } from './photos'
import { useRecords } from './records'
import { useSession } from './session'

const json = (status: number, body: unknown) => new Response(JSON.stringify(body), { status })
type Asked = readonly [method: string, path: string]

/** A server that keeps buckets and photos by revision as the real one does. */
function fakeServer() {
  const buckets = new Map<string, { id: string, kind: 'bucket', body: unknown, revision: number }>()
  const asked: Asked[] = []
  let goOn = () => {}
  const word = new Promise<void>((heard) => {
    goOn = heard
  })
  const server = {
    buckets,
    asked,
    behaviour: 'takes' as
    'takes' | 'slow' | 'unreachable' | 'takes but the answer is lost' | 'nonsense' | 'a proxy' | 'refuses',
    /** Lets a slow one answer. */
    goOn,
    async fetch(url: string, init?: { method?: string, body?: string }): Promise<Response> {
      const method = init?.method ?? 'GET', path = url.replace('/api/', '').replace(/\?.*/, '')
      if (server.behaviour === 'unreachable') throw new TypeError('no network')
      if (method !== 'GET') asked.push([method, path])
      if (server.behaviour === 'slow' && method !== 'GET') await word
      if (server.behaviour === 'nonsense') return json(200, {})
      if (server.behaviour === 'a proxy') return json(404, { error: 'no such site' })
      if (server.behaviour === 'refuses') return json(422, { data: { sentence: 'A bucket is not that deep.' } })
      const answer = take(method, path, init?.body)
      if (server.behaviour === 'takes but the answer is lost' && method !== 'GET') throw new TypeError('cut off')
      return answer
    },
  }
  function take(method: string, path: string, sent?: string): Response {
    const id = path.split('/').at(-1)!, before = buckets.get(id)
    if (path === 'library/bucket') return json(200, [...buckets.values()])
    if (path.startsWith('photos')) return json(200, method === 'GET' ? [] : { id })
    if (!path.startsWith('library/bucket/')) return json(200, [])
    if (method === 'DELETE') {
      const there = buckets.delete(id)
      return there ? json(200, { ok: true }) : json(404, { data: { sentence: 'That is gone.' } })
    }
    const { body, revision } = JSON.parse(sent!) as { body: unknown, revision: number }
    if ((before?.revision ?? 0) !== revision) return json(409, { data: { sentence: 'Someone else changed this.' } })
    buckets.set(id, { id, kind: 'bucket', body, revision: revision + 1 })
    return json(200, buckets.get(id))
  }
  return server
}
let server: ReturnType<typeof fakeServer>, who = 0

/** A page as it is after loading: new stores over the same browser. */
async function page() {
  setActivePinia(createPinia())
  useSession().facts = {
    person: { id: `p${who}`, name: 'P', email: 'p@example.org', role: 'owner' },
    workshop: { id: 'w', name: 'W', units: { mass: 'g', volume: 'ml', length: 'mm', temperature: 'C' } },
    clock: { now: 0, rate: 1 },
    demo: false,
    needsOwner: false,
  }
  useClock().anchor(1_800_000_000_000, 1)
  const library = useLibrary()
  await useRecords().load()
  await library.load()
  return { library, changes: useChanges(), names: () => library.items.bucket.map(b => b.body.name) }
}
const bucket = (name: string): BucketBody => ({ name, vessel: { bottom: 0.2, top: 0.2, height: 0.3 } })
const target = (id: string) => ({ what: 'item', kind: 'bucket', id }) as const
const sent = (changes: ReturnType<typeof useChanges>) =>
  expect.poll(() => changes.changes.length).toBe(0)
const elsewhere = (id: string, name: string, revision: number) =>
  server.buckets.set(id, { id, kind: 'bucket', body: bucket(name), revision })

/** A browser's locks, which hold over all its pages: one that was left goes on in these tests, and tries again too. */
function locks() {
  let turn: Promise<unknown> = Promise.resolve()
  return { request: <T>(_: string, work: () => Promise<T>) => turn = turn.then(work, work) }
}

beforeEach(() => {
  server = fakeServer()
  vi.stubGlobal('fetch', server.fetch)
  vi.stubGlobal('navigator', { locks: locks() })
  who++
})
afterEach(() => vi.unstubAllGlobals())

describe('a thing changed here', () => {
  it('is kept without a network, seen at once and by the next page, and sent once as it is last', async () => {
    server.behaviour = 'unreachable'
    const before = await page()
    await before.library.save('bucket', 'a', bucket('First'))
    await before.library.save('bucket', 'a', bucket('Second'), before.library.items.bucket[0])
    expect(before.names()).toEqual(['Second'])
    const after = await page()
    expect(after.names()).toEqual(['Second'])
    server.behaviour = 'takes'
    useRecords().hurry()
    await sent(after.changes)
    expect(server.asked).toEqual([['PUT', 'library/bucket/a']])
    expect(server.buckets.get('a')).toMatchObject({ revision: 1, body: { name: 'Second' } })
    expect(after.names()).toEqual(['Second'])
    expect(after.library.items.bucket[0]).toMatchObject({ revision: 1 })
  })

  it('goes on from what came of its own last change, also where the editor opened before that', async () => {
    const { library, changes } = await page()
    const first = await changes.keep({ target: target('a'), body: bucket('1') })
    await sent(changes)
    const second = await changes.keep({ target: target('a'), body: bucket('2'), from: { revision: 0, stamp: first.stamp } })
    await sent(changes)
    await changes.keep({ target: target('a'), body: bucket('3'), from: { revision: 0, stamp: second.stamp } })
    await sent(changes)
    expect(server.buckets.get('a')).toMatchObject({ revision: 3, body: { name: '3' } })
    expect(library.items.bucket[0]!.body.name).toBe('3')
  })

  it('whose answer was lost is not taken for somebody else’s, also when it was changed on since', async () => {
    const { library, changes, names } = await page()
    server.behaviour = 'takes but the answer is lost'
    await library.save('bucket', 'a', bucket('Sent'))
    expect(server.buckets.get('a')).toMatchObject({ revision: 1 })
    await library.save('bucket', 'a', bucket('Changed since'), library.items.bucket[0])
    server.behaviour = 'takes'
    useRecords().hurry()
    await sent(changes)
    expect(server.buckets.get('a')).toMatchObject({ revision: 2, body: { name: 'Changed since' } })
    expect(names()).toEqual(['Changed since'])
  })

  it.each(['nonsense', 'a proxy', 'unreachable'] as const)('stays while the answer is %s', async (behaviour) => {
    const { library, changes } = await page()
    server.behaviour = behaviour
    await library.save('bucket', 'a', bucket('Kept'))
    expect(changes.unsent.map(c => c.name)).toEqual(['item/bucket/a'])
    server.behaviour = 'takes'
    useRecords().hurry()
    await sent(changes)
    expect(server.buckets.get('a')).toMatchObject({ body: { name: 'Kept' } })
  })

  it('that the server will not take says why, stands in Not taken, and holds nothing else', async () => {
    const { library, changes } = await page()
    server.behaviour = 'refuses'
    await expect(library.save('bucket', 'a', bucket('Odd'))).rejects.toThrow('A bucket is not that deep.')
    expect(changes.refused.map(c => [c.name, c.refused])).toEqual([['item/bucket/a', 'A bucket is not that deep.']])
    server.behaviour = 'takes'
    await library.save('bucket', 'b', bucket('Sound'))
    expect(server.buckets.has('b')).toBe(true)
    await changes.sendAgain(changes.refused[0]!)
    await sent(changes)
    expect(server.buckets.has('a')).toBe(true)
  })

  it('whose answer was lost may be there: put away after that, it is put away there too', async () => {
    const { library, changes } = await page()
    server.behaviour = 'takes but the answer is lost'
    await library.save('bucket', 'a', bucket('Sent'))
    expect(server.buckets.has('a')).toBe(true)
    server.behaviour = 'takes'
    await library.archive('bucket', 'a')
    useRecords().hurry()
    await sent(changes)
    expect(server.buckets.has('a')).toBe(false)
  })

  it('that was changed on while it was refused is not refused for that', async () => {
    const { changes } = await page(), takes = server.fetch
    let refuse = () => {}
    vi.stubGlobal('fetch', (url: string, init?: { method?: string }) => init?.method !== 'PUT'
      ? takes(url, init)
      : new Promise<Response>((done) => {
          refuse = () => done(json(422, { data: { sentence: 'A bucket is not that deep.' } }))
        }))
    const first = await changes.keep({ target: target('a'), body: bucket('Odd'), isNew: true })
    await expect.poll(() => changes.inHand('item/bucket/a')?.sent.length).toBe(1)
    await changes.keep({ target: target('a'), body: bucket('Mended'), from: { revision: 0, stamp: first.stamp } })
    vi.stubGlobal('fetch', takes)
    refuse()
    await sent(changes)
    expect(server.buckets.get('a')).toMatchObject({ revision: 1, body: { name: 'Mended' } })
  })

  it('put away before anybody heard of it is nothing; put away elsewhere already is done', async () => {
    const { library, changes, names } = await page()
    server.behaviour = 'unreachable'
    await library.save('bucket', 'a', bucket('Never'))
    await expect.poll(() => useRecords().halted).toBe('away')
    elsewhere('b', 'There', 4)
    server.behaviour = 'takes'
    await library.load()
    await library.archive('bucket', 'b')
    expect(names()).not.toContain('There')
    await library.archive('bucket', 'b')
    await library.archive('bucket', 'a')
    useRecords().hurry()
    await sent(changes)
    expect(names()).toEqual([])
  })

  it('leaves nothing to the next person at this browser', async () => {
    server.behaviour = 'unreachable'
    await (await page()).library.save('bucket', 'a', bucket('Mine'))
    who++
    expect((await page()).names()).toEqual([])
    who--
    expect((await page()).names()).toEqual(['Mine'])
  })
})

describe('a thing that was changed elsewhere meanwhile', () => {
  async function met() {
    elsewhere('a', 'As it was', 1)
    const opened = await page()
    const [item] = opened.library.items.bucket
    elsewhere('a', 'Theirs', 2)
    await opened.library.save('bucket', 'a', bucket('Mine'), item)
    await expect.poll(() => opened.changes.refused.length).toBe(1)
    const change = opened.changes.refused[0]!
    expect(change.conflict).toEqual({ theirs: { revision: 2, body: bucket('Theirs') } })
    expect(server.buckets.get('a')).toMatchObject({ body: { name: 'Theirs' } })
    return { ...opened, change }
  }

  it('is kept in both versions until somebody chooses: mine', async () => {
    const { changes, change } = await met()
    await changes.keepMine(change)
    await sent(changes)
    expect(server.buckets.get('a')).toMatchObject({ revision: 3, body: { name: 'Mine' } })
  })

  it('or the other', async () => {
    const { changes, change, library, names } = await met()
    await changes.drop(change)
    await library.load()
    expect(names()).toEqual(['Theirs'])
    expect(server.buckets.get('a')).toMatchObject({ revision: 2 })
  })

  it('or both, mine as a thing of its own', async () => {
    const { changes, change, names } = await met()
    const id = await changes.keepBoth(change, ', second version')
    await sent(changes)
    expect(server.buckets.get(id)).toMatchObject({ revision: 1, body: { name: 'Mine, second version' } })
    await expect.poll(names).toEqual(['Mine, second version', 'Theirs'])
  })

  it.each([
    ['it is there already', 'A', ['A'], 'A', 'stands'],
    ['an earlier try is there', 'B', ['A', 'B'], 'A', 'again'],
    ['another is there', 'B', ['A', 'B'], 'C', 'asked'],
    ['it was put away there', 'B', ['B'], undefined, 'asked'],
    ['both put it away', undefined, [undefined], undefined, 'stands'],
  ] as const)('%s', (_, body, tries, theirs, becomes) => {
    const change = { body, sent: tries } as unknown as Change
    expect(settle(change, theirs && { revision: 5, body: theirs })).toBe(becomes)
  })
})

describe('a thing changed in two tabs of one browser', () => {
  /** Changed in one tab without a network, and in another from what the server told both. */
  async function both() {
    elsewhere('a', 'As it was', 1)
    const opened = await page(), [item] = opened.library.items.bucket
    server.behaviour = 'unreachable'
    const { stamp } = await opened.changes.keep({ target: target('a'), body: bucket('Earlier'), from: item })
    const later = await opened.changes.keep({ target: target('a'), body: bucket('Later'), from: item })
    server.behaviour = 'takes'
    const change = opened.changes.refused[0]!
    expect(opened.changes.ready).toEqual([])
    expect(otherOf(change)).toEqual(bucket('Earlier'))
    return { ...opened, change, stamp, later: later.stamp }
  }
  const there = () => [...server.buckets.values()].map(b => (b.body as BucketBody).name).sort()

  it.each([
    ['the later', ({ changes, change }: Awaited<ReturnType<typeof both>>) => changes.keepMine(change), ['Later']],
    ['the earlier', ({ changes, change }: Awaited<ReturnType<typeof both>>) => changes.drop(change), ['Earlier']],
    ['both', ({ changes, change }: Awaited<ReturnType<typeof both>>) => changes.keepBoth(change, ' 2'), [
      'Earlier', 'Later 2',
    ]],
  ] as const)('keeps the two until somebody chooses: %s', async (_, choose, stand) => {
    const opened = await both()
    await choose(opened)
    await sent(opened.changes)
    expect(there()).toEqual(stand)
    expect(opened.names()).toEqual(stand)
  })

  it('goes on in either tab without a third version', async () => {
    const { changes, stamp, later } = await both(), name = 'item/bucket/a'
    await changes.keep({ target: target('a'), body: bucket('Earlier, on'), from: { revision: 1, stamp } })
    await changes.keep({ target: target('a'), body: bucket('Later, on'), from: { revision: 1, stamp: later } })
    const { body, conflict } = changes.inHand(name)!
    expect([body, conflict!.here!.body, conflict!.here!.conflict])
      .toEqual([bucket('Later, on'), bucket('Earlier, on'), undefined])
  })

  it('is no choice where both say the same, or one was made from the other', async () => {
    elsewhere('a', 'As it was', 1)
    const { changes, library } = await page(), [item] = library.items.bucket
    server.behaviour = 'unreachable'
    await changes.keep({ target: target('a'), body: bucket('Same'), from: item })
    await changes.keep({ target: target('a'), body: bucket('Same'), from: item })
    await changes.keep({ target: target('a'), body: bucket('On'), from: library.items.bucket[0] })
    expect(changes.refused).toEqual([])
    await changes.keep({ target: target('a'), from: item })
    expect(changes.refused).toMatchObject([{ body: undefined, conflict: { here: { body: bucket('On') } } }])
  })

  it('asks about the server’s version once the earlier of the two stands there', async () => {
    elsewhere('a', 'As it was', 1)
    const { changes, library } = await page(), [item] = library.items.bucket
    server.behaviour = 'unreachable'
    await changes.keep({ target: target('a'), body: bucket('Earlier'), from: item })
    const onItsWay = changes.inHand('item/bucket/a')!
    await changes.keep({ target: target('a'), body: bucket('Later'), from: item })
    await changes.keep({ target: target('a'), body: bucket('Third'), from: item })
    const left = await changeTaken(onItsWay, 2)
    expect(left).toMatchObject({
      body: bucket('Third'),
      conflict: { here: { body: bucket('Later'), conflict: { theirs: { revision: 2, body: bucket('Earlier') } } } },
    })
    elsewhere('a', 'Earlier', 2)
    await changes.load()
    await changes.keepMine(changes.refused[0]!)
    await changes.keepMine(changes.refused[0]!)
    server.behaviour = 'takes'
    await sent(changes)
    expect(there()).toEqual(['Third'])
  })

  it('keeps both when the server has a third', async () => {
    elsewhere('a', 'As it was', 1)
    const { changes, library } = await page(), [item] = library.items.bucket
    elsewhere('a', 'Theirs', 2)
    server.behaviour = 'slow'
    await changes.keep({ target: target('a'), body: bucket('Earlier'), from: item })
    await expect.poll(() => server.asked).toEqual([['PUT', 'library/bucket/a']])
    await changes.keep({ target: target('a'), body: bucket('Later'), from: item })
    server.goOn()
    await expect.poll(() => changes.refused[0]?.conflict?.here?.conflict?.theirs).toEqual({
      revision: 2, body: bucket('Theirs'),
    })
    expect(changes.refused).toMatchObject([{ body: bucket('Later'), conflict: { here: { body: bucket('Earlier') } } }])
  })
})

describe('a photo', () => {
  it('waits for its own mould alone, and is seen meanwhile', async () => {
    URL.createObjectURL = () => 'blob:x'
    const { changes, library } = await page()
    server.behaviour = 'unreachable'
    await changes.write({ target: { what: 'item', kind: 'mould', id: 'm' }, body: { name: 'M' }, isNew: true })
    const photo = { blob: new Blob(['x'], { type: 'image/jpeg' }), width: 4, height: 3 }
    await keepPhoto('of-it', { mould: 'm' }, photo, 'Seam')
    await keepPhoto('of-another', { mould: 'n' }, photo)
    expect(changes.ready.map(c => c.name)).toEqual(['item/mould/m', 'photo/of-another'])
    expect(await photosOf({ mould: 'm' })).toEqual([
      expect.objectContaining({ id: 'of-it', mould: 'm', caption: 'Seam', width: 4 }),
    ])
    expect(nameOf({ what: 'photo', id: 'of-it' })).toBe('photo/of-it')
    server.behaviour = 'takes'
    await changes.drop(changes.inHand('item/mould/m')!)
    await sent(changes)
    expect(server.asked.map(([, path]) => path).sort()).toEqual(['photos/of-another', 'photos/of-it'])
    expect(library.items.mould).toEqual([])
  })
})
