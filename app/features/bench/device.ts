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

/** Notices when nothing was heard for so long, milliseconds. */
function noticeSilence(silentAfter: number) {
  const silent = ref(true)
  let timer: ReturnType<typeof setTimeout> | undefined
  /** A busy page runs its timers before it hears what came meanwhile: then the next line is waited for once more. */
  function awaitLine(): void {
    clearTimeout(timer)
    const due = Date.now() + silentAfter
    timer = setTimeout(() => {
      if (Date.now() - due > BUSY_MS) awaitLine()
      else silent.value = true
    }, silentAfter)
  }
  function lineCame(): void {
    silent.value = false
    awaitLine()
  }
  function fell(): void {
    clearTimeout(timer)
    silent.value = true
  }
  return { silent, lineCame, fell }
}

/** What a line of a device says; undefined when it says nothing that its kind could. */
function lineOf<S extends z.ZodType>(schema: S, text: string): z.output<S> | undefined {
  try {
    return schema.safeParse(JSON.parse(text)).data
  }
  catch {
    return undefined
  }
}

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
  const { silent, lineCame, fell } = noticeSilence(silentAfter)
  let source: EventSource | undefined, again: ReturnType<typeof setTimeout> | undefined

  const address = () => from.value === HERE
    ? `${DEVICE_ADDRESSES[device]}/readings`
    : addressOf('GET devices/:id/readings', { params: { id: from.value } })
  function read(text: string): void {
    const line = lineOf(schema, text)
    if (line === undefined) return
    lineCame()
    heard(line)
  }
  function listen(): void {
    if (source || !wanted.value) return
    source = new EventSource(address())
    source.onmessage = ({ data }: MessageEvent<string>) => read(data)
    source.onerror = () => {
      fell()
      // A stream that was refused is not tried again by the browser.
      if (source?.readyState !== EventSource.CLOSED) return
      stop()
      again = setTimeout(listen, TRY_AGAIN_MS)
    }
  }
  function stop(): void {
    clearTimeout(again)
    source?.close()
    source = undefined
    fell()
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
