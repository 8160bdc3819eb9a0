// @ts-check
import { randomUUID } from 'node:crypto'

const STAGES = ['ready', 'weigh', 'sift', 'soak', 'stir', 'fill']

/** @param {string} base the demo's session cookie */
export async function enter(base) {
  const answer = await fetch(`${base}/api/demo-entrance`, { method: 'POST', headers: { origin: base } })
  return answer.headers.getSetCookie().map(c => c.split(';')[0]).join('; ')
}

/** Twenty pours at the weighing, twenty filled with three casts each. @param {string} base @param {string} cookie */
export async function fill(base, cookie) {
  const headers = { 'origin': base, cookie, 'content-type': 'application/json' }
  /** @param {string} path @param {unknown} body */
  const post = async (path, body) => {
    const answer = await fetch(base + path, { method: 'POST', headers, body: JSON.stringify(body) })
    if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`)
    return answer.json()
  }
  const get = async (/** @type {string} */ path) => (await fetch(base + path, { headers })).json()
  const { now } = (await get('/api/session')).clock, saved = (await get('/api/plans'))[0].plan
  const plan = { ...saved, fills: [{ ...saved.fills[0], count: 3 }] }
  for (let n = 0; n < 40; n++) {
    const id = randomUUID(), device = `bench-${n}`, startedAt = now - 1_200_000 - 60_000 * n
    const first = { id, plan: { ...plan, name: `Shelf ${n + 1}` }, startedAt, device, deviceSeq: 0, eventId: randomUUID() }
    await post('/api/pours', first)
    let seq = 0
    /** @param {string} kind @param {unknown} data */
    const event = (kind, data) => ({
      id: randomUUID(), kind, data, version: 1, batch: 0, device, deviceSeq: ++seq,
      happenedAt: startedAt + 60_000 * seq, recordedAt: startedAt + 60_000 * seq,
    })
    const stages = n < 20 ? STAGES.slice(0, 2) : STAGES
    await post(`/api/pours/${id}/events`, { sentAt: now, events: stages.map(stage => event('stage', { stage })) })
    if (n < 20) continue
    const { run } = await get(`/api/pours/${id}`)
    const casts = run.batches.flatMap((/** @type {{ fills: { count: number }[] }} */ b) => b.fills)
      .reduce((/** @type {number} */ sum, /** @type {{ count: number }} */ f) => sum + f.count, 0)
    const filled = Array.from({ length: casts }, (_, i) => event('filled', { cast: `0:${i}` }))
    await post(`/api/pours/${id}/events`, { sentAt: now, events: [...filled, event('stage', { stage: 'clean-up' })] })
  }
}
