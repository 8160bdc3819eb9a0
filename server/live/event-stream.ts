import { finished } from 'node:stream'
import { setResponseHeaders, type H3Event } from 'h3'

/**
 * Server-sent events (HTML standard, 9.2), written straight to the connection: what many streams are told alike is
 * written down once for all of them.
 */

/** A reader so slow that this much waits for it is let go, bytes: it comes back and catches up. */
const MOST_WAITING = 1_000_000
/** A browser that hears nothing for two and a half of these says that it may be stale. */
const HEARTBEAT_MS = 10_000

/** @param data without line breaks, as JSON is @param retry after how many milliseconds a browser comes back */
export function frameOf(
  data: string,
  { event, retry }: { readonly event?: string, readonly retry?: number } = {},
): string {
  const head = [event && `event: ${event}`, retry !== undefined && `retry: ${retry}`].filter(Boolean)
  return [...head, `data: ${data}`, '', ''].join('\n')
}

/** That the connection is still there. */
const BEAT = frameOf('', { event: 'beat' })

/** Begins the answer. @returns how it goes on: to push a frame, to end, and when it is over, whoever ended it */
function begin(event: H3Event) {
  const { req, res } = event.node
  setResponseHeaders(event, {
    'content-type': 'text/event-stream',
    'cache-control': 'private, no-cache, no-store, no-transform, must-revalidate, max-age=0',
    'x-accel-buffering': 'no',
    ...req.httpVersion.startsWith('1') && { connection: 'keep-alive' },
  })
  // It is answered here: h3 sees that its headers are gone, and adds nothing.
  res.flushHeaders()
  function push(frame: string): void {
    if (res.writableEnded || res.destroyed) return
    if (res.writableLength > MOST_WAITING) res.destroy()
    else res.write(frame)
  }
  return { push, end: () => void res.end(), over: new Promise<void>(done => finished(res, () => done())) }
}

/** A stream while it is open: a frame to push to it, and its end. */
export interface Stream { readonly push: (frame: string) => void, readonly end: () => void }

/**
 * Answers with a stream until it is over. What is to be pushed before it has begun is not: its first frame says that
 * there is something to catch up with.
 * @param hear begins to hear what it is to tell, and returns what ends that @throws what `hear` throws
 * @param hello its first frame
 * @param stillThere whether who opened it may still hear: that may have ended while it began
 */
export async function openStream(
  event: H3Event,
  hear: (stream: Stream) => Promise<() => void>,
  hello: () => string,
  stillThere: () => Promise<boolean> = () => Promise.resolve(true),
): Promise<void> {
  let stream: ReturnType<typeof begin> | undefined, over = false
  function end(): void {
    over = true
    stream?.end()
  }
  const stop = await hear({ push: frame => stream?.push(frame), end })
  try {
    if (!await stillThere()) end()
    stream = begin(event)
    stream.push(hello())
    if (over) stream.end()
    const heartbeat = setInterval(stream.push, HEARTBEAT_MS, BEAT)
    await stream.over
    clearInterval(heartbeat)
  }
  finally {
    stop()
  }
}
