import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { LiveMessage } from '~contract/pour'
import { useRecords } from './records'
import { useSession } from './session'
import { addressOf } from './api'

/** The stream of what changed elsewhere; also the honest answer to “are we connected?”. */
export const useLive = defineStore('live', () => {
  const connected = ref(true)
  const listeners = new Set<(message: LiveMessage | { readonly what: 'caught-up' }) => void>()
  let source: EventSource | undefined
  let retry: ReturnType<typeof setTimeout> | undefined

  /**
   * A device that loses its network knows it before the stream does; when it is back, the stream is begun anew at once.
   */
  function lost(): void {
    connected.value = false
  }
  function back(): void {
    stop()
    start()
  }
  function start(): void {
    if (source) return
    addEventListener('offline', lost)
    addEventListener('online', back)
    source = new EventSource(addressOf('GET live'))
    source.addEventListener('hello', () => {
      connected.value = true
      useRecords().hurry()
      if (useSession().kept) void useSession().load().catch(() => {})
      for (const listener of listeners) listener({ what: 'caught-up' })
    })
    source.onmessage = ({ data }: MessageEvent<string>) => {
      const message = JSON.parse(data) as LiveMessage
      if (message.what === 'clock' || message.what === 'people') void useSession().load().catch(() => {})
      for (const listener of listeners) listener(message)
    }
    source.onerror = () => {
      connected.value = false
      // A server that answers with an error ends the browser's own retrying.
      if (source?.readyState === EventSource.CLOSED) {
        stop()
        retry = setTimeout(start, 3000)
      }
    }
  }
  function stop(): void {
    clearTimeout(retry)
    source?.close()
    source = undefined
    removeEventListener('offline', lost)
    removeEventListener('online', back)
  }
  /** @returns a function that stops listening. */
  function on(listener: (message: LiveMessage | { readonly what: 'caught-up' }) => void): () => void {
    listeners.add(listener)
    return () => listeners.delete(listener)
  }
  return { connected, start, stop, on }
})
