import { createServer, request, type IncomingMessage, type Server } from 'node:http'
import { once } from 'node:events'
import type { AddressInfo } from 'node:net'
import { createApp, defineEventHandler, toNodeListener } from 'h3'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { frameOf, openStream, type Stream } from '../../server/live/event-stream'

/** A stream as it goes over the wire: its frames, its end by either side, and a reader who does not read. */
let server: Server, streams: Stream[], stopped: number, stillThere = true
beforeEach(async () => {
  streams = []
  stopped = 0
  stillThere = true
  const app = createApp().use(defineEventHandler(event => openStream(event, async (stream) => {
    streams.push(stream)
    return () => {
      stopped++
    }
  }, () => frameOf('{}', { event: 'hello', retry: 5 }), () => Promise.resolve(stillThere))))
  server = createServer(toNodeListener(app)).listen(0, '127.0.0.1')
  await once(server, 'listening')
})
afterEach(() => {
  server.closeAllConnections()
  server.close()
})
async function open(): Promise<IncomingMessage> {
  const asked = request({ port: (server.address() as AddressInfo).port, host: '127.0.0.1' }).end()
  return (await once(asked, 'response') as [IncomingMessage])[0]
}
const HELLO = 'event: hello\nretry: 5\ndata: {}\n\n'
function reading(answer: IncomingMessage): () => string {
  let text = ''
  answer.setEncoding('utf8').on('data', (piece: string) => {
    text += piece
  })
  return () => text
}

describe('a stream of events', () => {
  it('begins with its hello, tells what is pushed in order, and ends when it is told to', async () => {
    const answer = await open(), text = reading(answer)
    expect(answer.headers['content-type']).toBe('text/event-stream')
    streams[0]!.push(frameOf('{"a":1}'))
    streams[0]!.push(frameOf('{"a":2}'))
    streams[0]!.end()
    await once(answer, 'end')
    expect(text()).toBe(`${HELLO}data: {"a":1}\n\ndata: {"a":2}\n\n`)
    await expect.poll(() => stopped).toBe(1)
    // What comes after its end is told to nobody, and is no fault.
    streams[0]!.push(frameOf('{"a":3}'))
  })

  it('stops listening when its reader goes away', async () => {
    const answer = await open()
    answer.destroy()
    await expect.poll(() => stopped).toBe(1)
  })

  it('of somebody who is not there any more ends with its hello', async () => {
    stillThere = false
    const answer = await open(), text = reading(answer)
    await once(answer, 'end')
    expect(text()).toBe(HELLO)
    await expect.poll(() => stopped).toBe(1)
  })

  it('lets a reader go that does not read, before all the memory is full of what waits for them', async () => {
    const answer = await open(), frame = frameOf(JSON.stringify('x'.repeat(100_000)))
    answer.pause()
    answer.on('error', () => {})
    let pushed = 0
    for (; stopped === 0 && pushed < 1000; pushed++) {
      streams[0]!.push(frame)
      await new Promise(done => setImmediate(done))
    }
    expect(stopped).toBe(1)
    expect(pushed).toBeLessThan(1000)
  })
})
