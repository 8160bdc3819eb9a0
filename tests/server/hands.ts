import { randomUUID } from 'node:crypto'
import { expect } from 'vitest'
import type { Answer } from './over-http'

/** People at work while something happens to their server: a page that listens, and hands that go on telling. */

/** A page that comes back whenever its stream ends, as browsers do. @returns what it heard, and how to leave */
export function watching(url: string, cookie: string) {
  let text = '', over = false
  const leave = new AbortController()
  const reading = (async () => {
    while (!over) {
      try {
        const answer = await fetch(`${url}/api/live`, { headers: { cookie }, signal: leave.signal })
        const reader = answer.body!.pipeThrough(new TextDecoderStream()).getReader()
        for (let part = await reader.read(); !part.done; part = await reader.read()) text += part.value
      }
      catch { /* It comes back. */ }
      await new Promise(done => setTimeout(done, 200))
    }
  })()
  return {
    heard: () => text,
    leave: async () => {
      over = true
      leave.abort()
      await reading
    },
  }
}

const order = { last: 1 }
export const note = (text: string) => ({
  id: randomUUID(), kind: 'note', data: { text }, version: 2, happenedAt: Date.now(), recordedAt: Date.now(), device: 'd',
  deviceSeq: ++order.last,
})

/** Hands that go on telling, whatever happens. @returns what was acknowledged, and how to stop */
export function writing(hands: number, send: (event: object) => Promise<Answer | undefined>) {
  const told: string[] = []
  let over = false
  const all = Array.from({ length: hands }, async () => {
    for (let event = note('told'); !over;) {
      const answer = await send(event)
      // What was not acknowledged is sent again as it was.
      if (answer?.status === 200) {
        told.push(event.id)
        event = note('told')
      }
      else await new Promise(done => setTimeout(done, 100))
    }
  })
  return {
    told,
    stop: async () => {
      over = true
      await Promise.all(all)
    },
  }
}
export async function goesOn(told: readonly string[]): Promise<void> {
  const enough = told.length + 20
  await expect.poll(() => told.length, { timeout: 240_000, interval: 100 }).toBeGreaterThan(enough)
}
