import { afterEach, describe, expect, it, vi } from 'vitest'
import { ROUTE_HEADER } from '~contract/route-header'
import { ROUTES } from '~contract/routes'
import type { Refused } from './api'
import { addressOf, ask, checkAnswersBy, newId } from './api'
import { latestOnly } from './latest'
import { counting, dayAndTime, recordTime, roughDay, roughRange, timeOfDay, windowOf } from '../ui/when'

const at = (day: number, hour: number, minute = 0) => new Date(2027, 2, day, hour, minute).getTime()
const NOW = at(10, 14, 7)

describe('times as people say them', () => {
  it.each([
    [at(10, 15, 10), '15:10'],
    [at(11, 9), 'tomorrow 09:00'],
    [at(9, 23, 59), 'yesterday 23:59'],
    [at(13, 8, 5), 'Sat 08:05'],
    [at(1, 8), '1 Mar'],
    [new Date(2025, 5, 2).getTime(), '2 Jun 2025'],
  ])('%d', (moment, words) => {
    expect(dayAndTime(moment, NOW)).toBe(words)
  })

  it('what cannot be known to the hour is said in parts of days', () => {
    expect(
      [at(10, 9), at(10, 15), at(10, 21), at(11, 3), at(11, 23), at(12, 4), at(13, 13), at(14, 2), at(28, 13)].map(t =>
        roughDay(t, NOW),
      ),
    ).toEqual([
      'this morning',
      'this afternoon',
      'this evening',
      'tonight',
      'tomorrow night',
      'tomorrow night',
      'Sat afternoon',
      'Sat night',
      '28 Mar',
    ])
    expect(roughRange(at(10, 15), at(10, 16), NOW)).toBe('this afternoon')
    expect(roughRange(at(11, 15), at(13, 9), NOW)).toBe('tomorrow afternoon to Sat morning')
  })

  it('a window on one day names the day once', () => {
    expect(windowOf(at(10, 15, 10), at(10, 15, 30), NOW)).toBe('15:10–15:30')
    expect(windowOf(at(10, 23, 10), at(11, 0, 30), NOW)).toBe('23:10 – tomorrow 00:30')
    expect(timeOfDay(NOW)).toBe('14:07')
    expect(recordTime(at(1, 8, 2), NOW)).toBe('1 Mar 08:02')
  })

  it('a counting clock keeps its width and never looks like a time of day', () => {
    expect([0, 9.9, 65, 3599, 3600, 7384, -5].map(counting)).toEqual([
      '0 min 00 s',
      '0 min 09 s',
      '1 min 05 s',
      '59 min 59 s',
      '1 h 00',
      '2 h 03',
      '0 min 00 s',
    ])
  })
})

describe('asking the server', () => {
  afterEach(() => vi.unstubAllGlobals())
  const answering = (status: number, body: string) => vi.stubGlobal('fetch', async () => new Response(body, { status }))
  const refusal = async (): Promise<Refused> =>
    ask('GET plans').then(() => Promise.reject(new Error('it went through')), (e: unknown) => e as Refused)

  it('gives back what it says', async () => {
    answering(200, '{"a":1}')
    expect(await ask('GET plans')).toEqual({ a: 1 })
  })

  it('turns a refusal into its sentence and field', async () => {
    answering(422, '{"data":{"sentence":"Choose a bucket.","field":"bucket"}}')
    expect(await refusal()).toMatchObject({ sentence: 'Choose a bucket.', status: 422, field: 'bucket' })
  })

  it('says something useful when there is no answer, or none that can be read', async () => {
    answering(502, '<html>')
    expect(await refusal()).toMatchObject({ status: 502, sentence: expect.stringContaining('Try it again') as string })
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('no network')))
    expect(await refusal()).toMatchObject({
      status: 0,
      sentence: expect.stringContaining('does not answer just now') as string,
    })
  })

  it('takes half an answer, another route’s, or some page in between for none', async () => {
    for (const body of ['{"a":', '<html>Sign in to this network</html>', '']) {
      answering(200, body)
      expect(await refusal()).toMatchObject({ status: 0, ours: false })
    }
    vi.stubGlobal('fetch', async () => new Response('{"a":1}', { headers: { [ROUTE_HEADER]: 'GET people' } }))
    expect(await refusal()).toMatchObject({ status: 0 })
    vi.stubGlobal('fetch', async () => new Response('{"a":1}', { headers: { [ROUTE_HEADER]: 'GET plans' } }))
    expect(await ask('GET plans')).toEqual({ a: 1 })
  })

  it('goes to the method and address that the route is named by, with what it takes', async () => {
    const fetched = vi.fn((..._: [string, RequestInit]) => Promise.resolve(new Response('{}')))
    vi.stubGlobal('fetch', fetched)
    await ask('DELETE library/:kind/:id', { params: { kind: 'bag', id: '1' } })
    await ask('GET logbook/pours', { query: { find: 'a & b', facts: ['x:1', 'y:2'], after: undefined } })
    await ask('PUT photos/:id', { params: { id: '2' }, query: { mould: '3' }, bytes: new Blob(['p'], { type: 'image/jpeg' }) })
    await ask('PATCH workshop', { body: { name: 'Shed' } })
    expect(fetched.mock.calls.map(([address, { method, headers, body }]) => [method, address, headers, body])).toEqual([
      ['DELETE', '/api/library/bag/1', {}, undefined],
      ['GET', '/api/logbook/pours?find=a+%26+b&facts=x%3A1&facts=y%3A2', {}, undefined],
      ['PUT', '/api/photos/2?mould=3', { 'content-type': 'image/jpeg' }, expect.any(Blob)],
      ['PATCH', '/api/workshop', { 'content-type': 'application/json' }, '{"name":"Shed"}'],
    ])
    expect(addressOf('GET calendar/:file', { params: { file: 'a/b' } })).toBe('/api/calendar/a%2Fb')
  })

  it('an answer that is not what its contract promises does not pass where answers are checked', async () => {
    answering(200, '[{"id":1}]')
    checkAnswersBy((name, answer) => {
      if (!ROUTES[name as 'GET plans'].answer.safeParse(answer).success) throw new Error(`${name} is wrong`)
    })
    await expect(ask('GET plans')).rejects.toThrow('GET plans is wrong')
    answering(200, '[]')
    expect(await ask('GET plans')).toEqual([])
    checkAnswersBy(() => {})
  })

  it('makes ids of the right form where the browser makes none', () => {
    vi.stubGlobal('crypto', { getRandomValues: (b: Uint8Array) => b.fill(0xFF) })
    expect(newId()).toBe('ffffffff-ffff-4fff-bfff-ffffffffffff')
  })
})

describe('answers that overtake each other', () => {
  it('only the last question asked is believed; the older ones wait for it and do not fail by themselves', async () => {
    const latest = latestOnly(), applied: string[] = []
    let answerOld = (_: string) => {}, failOld = (_: Error) => {}, answerNew = (_: string) => {}
    const ask = (question: Promise<string>) => latest(() => question, x => applied.push(x))
    const runs = [
      ask(new Promise((resolve) => { answerOld = resolve })),
      ask(new Promise((_, reject) => { failOld = reject })),
      ask(new Promise((resolve) => { answerNew = resolve })),
    ]
    let done = false
    void runs[0]!.then(() => { done = true })
    answerOld('old')
    failOld(new Error('late'))
    await Promise.resolve()
    expect([applied, done]).toEqual([[], false])
    answerNew('newest')
    await Promise.all(runs)
    expect([applied, done]).toEqual([['newest'], true])
    await expect(ask(Promise.reject(new Error('now')))).rejects.toThrow('now')
  })
})
