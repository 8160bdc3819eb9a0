import type { Hello, LiveMessage } from '~contract/pour'
import type { Heard } from './tabs'

/** Two and a half beats of the server: whoever hears nothing for so long may be stale. */
export const SILENT_MS = 25_000
/** Between tries when the server answers with an error, or not at all. */
const FIRST_RETRY_MS = 1000, LAST_RETRY_MS = 5000

/** An older server says something else first. */
function helloOf(data: string): Hello {
  try {
    const { epoch = '', build = '' } = JSON.parse(data) as Partial<Hello>
    return { epoch, build }
  }
  catch {
    return { epoch: '', build: '' }
  }
}

/**
 * One stream of what changes, begun anew for ever until it is closed.
 * @param address of the stream
 * @param hear is told what it says, and when it broke
 * @param meet is told which database this is, before anything is caught up with
 */
export function streaming(
  address: string,
  hear: (message: LiveMessage | Heard) => void,
  meet: (epoch: string) => Promise<void> = () => Promise.resolve(),
): { again: () => void, close: () => void } {
  let source: EventSource | undefined, retry: ReturnType<typeof setTimeout> | undefined, wait = FIRST_RETRY_MS
  function open(): void {
    source = new EventSource(address)
    source.addEventListener('hello', ({ data }) => {
      wait = FIRST_RETRY_MS
      const { epoch, build } = helloOf(data as string)
      void meet(epoch).finally(() => hear({ what: 'caught-up', build }))
    })
    source.addEventListener('beat', () => hear({ what: 'beat' }))
    source.onmessage = ({ data }: MessageEvent<string>) => hear(JSON.parse(data) as LiveMessage)
    source.onerror = () => {
      hear({ what: 'lost' })
      // A server that answers with an error ends the browser's own retrying.
      if (source?.readyState !== EventSource.CLOSED) return
      retry = setTimeout(open, wait)
      wait = Math.min(LAST_RETRY_MS, 2 * wait)
    }
  }
  function close(): void {
    clearTimeout(retry)
    source?.close()
    source = undefined
  }
  open()
  return {
    again: () => {
      close()
      open()
    },
    close,
  }
}
