import { describe, expect, it } from 'vitest'
import { MOST_READINGS_PER_S } from '~contract/devices'
import { ask, member, overHttp, owner, product, viewer } from './over-http'

/** Devices that post what they measure: to the benches that listen, and into nothing else. */
overHttp()

const line = (grams: number) => ({ device: 'scale', boot: 'b', grams, overload: false })
const post = (token: string, body: unknown, headers: Record<string, string> = {}) =>
  fetch(`${product.url}/api/readings`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'authorization': `Bearer ${token}`, ...headers },
    body: JSON.stringify(body),
  })
async function bringIn(name: string, kind = 'scale'): Promise<{ id: string, token: string }> {
  const made = await ask(product, 'POST', 'devices', { cookie: owner, body: { kind, name } })
  expect(made.status).toBe(200)
  return made.body as unknown as { id: string, token: string }
}

/** What a bench hears, until it says enough. */
async function listen(id: string, cookie: string) {
  const answer = await fetch(`${product.url}/api/devices/${id}/readings`, { headers: { cookie } })
  const reader = answer.body!.pipeThrough(new TextDecoderStream()).getReader()
  let text = ''
  const until = async (pattern: RegExp | 'ended') => {
    for (;;) {
      if (pattern !== 'ended' && pattern.test(text)) return text
      const { value, done } = await reader.read()
      if (done) return pattern === 'ended' ? text : Promise.reject(new Error(`It ended after ${text}`))
      text += value
    }
  }
  await until(/event: hello/)
  return { status: answer.status, until }
}

describe('a device', () => {
  it('is heard by whoever listens to it, nothing of it is kept, and taken out it is heard no more', async () => {
    const scale = await bringIn('Bench scale'), other = await bringIn('Other scale')
    const bench = await listen(scale.id, viewer)
    await post(other.token, line(1))
    expect((await post(scale.token, line(431.2))).status).toBe(200)
    expect(await bench.until(/431\.2/)).not.toContain('"grams":1,')
    const rows = (await ask(product, 'GET', 'devices', { cookie: member })).body as unknown as { id: string, heardAt?: number }[]
    expect(rows.find(r => r.id === scale.id)!.heardAt).toBeGreaterThan(Date.now() - 60_000)
    expect(JSON.stringify(rows)).not.toContain(scale.token)
    expect((await ask(product, 'DELETE', `devices/${scale.id}`, { cookie: member })).status).toBe(403)
    expect((await ask(product, 'DELETE', `devices/${scale.id}`, { cookie: owner })).status).toBe(200)
    await bench.until('ended')
    expect((await post(scale.token, line(2))).status).toBe(401)
  })

  it('says only what its kind says, at a pace and of a size that somebody can use', async () => {
    const { token } = await bringIn('Paced scale')
    const answers = await Promise.all(Array.from({ length: 3 * MOST_READINGS_PER_S }, (_, i) => post(token, line(i))))
    const taken = answers.filter(a => a.status === 200).length
    expect(taken).toBeGreaterThan(0)
    expect(answers.some(a => a.status === 429)).toBe(true)
    const room = await bringIn('A room', 'room')
    const wrong = await post(room.token, line(5))
    expect([wrong.status, await wrong.json()]).toEqual([422, expect.objectContaining({
      data: expect.objectContaining({ sentence: 'This device was brought in as a room.' }),
    })])
    expect((await post(room.token, { device: 'room', celsius: 900, humidity: 2 })).status).toBe(400)
  })

  it('opens nothing else with its secret, and nobody speaks for it with a cookie', async () => {
    const { token } = await bringIn('Narrow scale')
    const asked = (path: string) => fetch(`${product.url}/api/${path}`, { headers: { authorization: `Bearer ${token}` } })
    for (const path of ['plans', 'people', 'devices']) expect([path, (await asked(path)).status]).toEqual([path, 401])
    expect((await post('', line(1), { cookie: owner })).status).toBe(401)
  })
})
