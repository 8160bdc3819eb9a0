import 'fake-indexeddb/auto'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { PourAnswer } from '~contract/pour'
import { Refused } from './api'
import { forgetAnswers, keepAnswer, keptOf, remembered } from './kept'

let answer: () => Promise<Response>
beforeEach(() => vi.stubGlobal('fetch', vi.fn(() => answer())))
afterEach(async () => {
  vi.unstubAllGlobals()
  await forgetAnswers()
})
const says = (value: unknown, status = 200) => () => Promise.resolve(new Response(JSON.stringify(value), { status }))
const nothing = () => Promise.reject(new TypeError('no network'))
/** Keeping happens beside the answer. */
const kept = (question: () => Promise<{ readonly value: unknown }>, value: unknown) => expect.poll(async () => {
  answer = nothing
  return (await question().catch(() => undefined))?.value
}).toEqual(value)
/** A pour of which only this much is told: what is kept is given back as it was. */
const pour = (seq: number) => ({ id: '1', seq }) as PourAnswer
const ONE = { params: { id: '1' } }

describe('answers kept in the browser', () => {
  it('the server’s answer goes first; without a network the last one to the same question is given, and says that it is from here and when', async () => {
    answer = says([1])
    const fresh = await remembered('me@w', 'GET plans')
    expect(fresh).toMatchObject({ value: [1], fromHere: false })
    await kept(() => remembered('me@w', 'GET plans'), [1])
    answer = nothing
    expect(await remembered('me@w', 'GET plans')).toEqual({ value: [1], at: fresh.at, fromHere: true })
    // A server that is up but has lost its database counts as no network.
    answer = says({}, 503)
    expect(await remembered('me@w', 'GET plans')).toMatchObject({ value: [1], fromHere: true })
    answer = says([1, 2])
    expect(await remembered('me@w', 'GET plans')).toMatchObject({ value: [1, 2], fromHere: false })
  })

  it('nobody is given what another person was told, and a question never asked is refused in words', async () => {
    answer = says(['mine'])
    await remembered('me@w', 'GET pours')
    await kept(() => remembered('me@w', 'GET pours'), ['mine'])
    await expect(remembered('other@w', 'GET pours')).rejects.toThrow(Refused)
    await expect(remembered('me@elsewhere', 'GET pours')).rejects.toThrow(/does not answer just now/)
    await expect(remembered('me@w', 'GET casts')).rejects.toThrow(Refused)
  })

  it.each([401, 403, 404, 500])('what the server refuses with %i is refused, whatever is kept', async (status) => {
    await keepAnswer('me@w', 'GET pours/:id', ONE, pour(1))
    answer = says({ data: { sentence: 'No.' } }, status)
    await expect(remembered('me@w', 'GET pours/:id', ONE)).rejects.toMatchObject({ status, sentence: 'No.' })
  })

  it('what is known by now takes the place of the last answer; forgetting leaves nothing', async () => {
    await keepAnswer('me@w', 'GET pours/:id', ONE, pour(3))
    await keepAnswer('me@w', 'GET pours/:id', ONE, pour(5))
    await kept(() => remembered('me@w', 'GET pours/:id', ONE), pour(5))
    await forgetAnswers()
    answer = nothing
    await expect(remembered('me@w', 'GET pours/:id', ONE)).rejects.toThrow(Refused)
  })

  it('an answer that was on its way while all was forgotten is kept by nobody', async () => {
    let say = (_: Response) => {}
    answer = () => new Promise(resolve => say = resolve)
    const late = remembered('me@w', 'GET plans')
    await forgetAnswers()
    say(new Response('[1]'))
    expect((await late).value).toEqual([1])
    await keepAnswer('', 'GET pours/:id', ONE, pour(3))
    expect(await keptOf('me@w')).toEqual([])
    expect(await keptOf('')).toEqual([])
  })
})
