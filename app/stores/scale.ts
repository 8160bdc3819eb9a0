import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { heard, NO_WEIGHING, tared, type Weighing } from '~core/pour/weighing'
import { scaleLineSchema, SCALE_ADDRESS } from '~shared/devices'

/** The scale on the table, if there is one: listened to while it is switched on here, and found again when it went away. */
export const useScale = defineStore('scale', () => {
  const wanted = useLocalStorage('scale-wanted', false)
  const weighing = shallowRef<Weighing>(NO_WEIGHING)
  /** Nothing came for a while: off, unplugged, or out of reach. */
  const silent = ref(true)
  let source: EventSource | undefined
  let quiet: ReturnType<typeof setTimeout> | undefined
  const SILENT_MS = 1500

  function listen(): void {
    if (source || !wanted.value) return
    source = new EventSource(`${SCALE_ADDRESS}/readings`)
    source.onmessage = ({ data }: MessageEvent<string>) => {
      const line = scaleLineSchema.safeParse(parsed(data))
      if (!line.success) return
      silent.value = false
      clearTimeout(quiet)
      quiet = setTimeout(() => {
        silent.value = true
      }, SILENT_MS)
      weighing.value = heard(weighing.value, { at: Date.now(), grams: line.data.grams, boot: line.data.boot, overload: line.data.overload })
    }
    source.onerror = () => {
      silent.value = true
      // A stream that was refused is not tried again by the browser.
      if (source?.readyState === EventSource.CLOSED) {
        stop()
        quiet = setTimeout(listen, 3000)
      }
    }
  }
  function parsed(text: string): unknown {
    try {
      return JSON.parse(text)
    }
    catch {
      return undefined
    }
  }
  function stop(): void {
    clearTimeout(quiet)
    source?.close()
    source = undefined
    silent.value = true
  }
  function toggle(): void {
    wanted.value = !wanted.value
    if (wanted.value) listen()
    else stop()
  }
  function tare(): void {
    weighing.value = tared(weighing.value)
  }
  const here = computed(() => wanted.value && !silent.value)
  return { wanted, weighing, silent, here, listen, stop, toggle, tare }
})
