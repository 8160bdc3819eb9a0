import { useLocalStorage } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { z } from 'zod'
import { DEVICE_ADDRESSES, type DeviceId } from '~contract/devices'
import { addressOf } from '~/sync/api'

const TRY_AGAIN_MS = 3000
/** On the machine that shows the page. */
export const HERE = 'here'
/** A timer this late tells of a busy page, not of a silent device. */
const BUSY_MS = 250

/**
 * A device at the bench: listened to while it is wanted on this device, and found again when it went away.
 * @param silentAfter milliseconds without a line after which it counts as off, unplugged or out of reach.
 */
export function deviceStream<S extends z.ZodType>(
  device: DeviceId,
  schema: S,
  silentAfter: number,
  heard: (line: z.output<S>) => void,
) {
  const wanted = useLocalStorage(`${device}-wanted`, false)
  /** On this machine itself, or through the server: then which of the workshop’s devices. */
  const from = useLocalStorage(`${device}-from`, HERE)
  const silent = ref(true)
  let source: EventSource | undefined
  let quiet: ReturnType<typeof setTimeout> | undefined

  /** A busy page runs its timers before it hears what came meanwhile: then the next line is waited for once more. */
  function awaitLine(): void {
    clearTimeout(quiet)
    const due = Date.now() + silentAfter
    quiet = setTimeout(() => {
      if (Date.now() - due > BUSY_MS) awaitLine()
      else silent.value = true
    }, silentAfter)
  }
  function read(text: string): void {
    let value: unknown
    try {
      value = JSON.parse(text)
    }
    catch {
      return
    }
    const line = schema.safeParse(value)
    if (!line.success) return
    silent.value = false
    awaitLine()
    heard(line.data)
  }
  function listen(): void {
    if (source || !wanted.value) return
    source = new EventSource(from.value === HERE
      ? `${DEVICE_ADDRESSES[device]}/readings`
      : addressOf('GET devices/:id/readings', { params: { id: from.value } }))
    source.onmessage = ({ data }: MessageEvent<string>) => read(data)
    source.onerror = () => {
      silent.value = true
      // A stream that was refused is not tried again by the browser.
      if (source?.readyState === EventSource.CLOSED) {
        stop()
        quiet = setTimeout(listen, TRY_AGAIN_MS)
      }
    }
  }
  function stop(): void {
    clearTimeout(quiet)
    source?.close()
    source = undefined
    silent.value = true
  }
  /** Listens to this one, or no longer to any. */
  function toggle(which = HERE): void {
    stop()
    wanted.value = !wanted.value || from.value !== which
    from.value = which
    listen()
  }
  return { wanted, from, silent, here: computed(() => wanted.value && !silent.value), listen, stop, toggle }
}
