import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import { heard, NO_WEIGHING, tared, type Weighing } from '~core/bench/weighing'
import { deviceStream } from '~/features/bench/device'
import { scaleLineSchema } from '~contract/devices'

/** The scale on the table, if there is one. */
export const useScale = defineStore('scale', () => {
  const weighing = shallowRef<Weighing>(NO_WEIGHING)
  const stream = deviceStream('scale', scaleLineSchema, 2500, (line) => {
    weighing.value = heard(weighing.value, {
      at: Date.now(),
      grams: line.grams,
      boot: line.boot,
      overload: line.overload,
    })
  })
  function tare(): void {
    weighing.value = tared(weighing.value)
  }
  return { ...stream, weighing, tare }
})
