import { defineStore } from 'pinia'
import { ref } from 'vue'
import { deviceStream } from '~/features/bench/device'
import { roomLineSchema, thermometerLineSchema } from '~contract/devices'

/** The thermometer in the cast, if there is one. */
export const useThermometer = defineStore('thermometer', () => {
  const celsius = ref<number>()
  /** Counts its lines: the same reading twice is still two readings. */
  const heardAt = ref(0)
  const stream = deviceStream('thermometer', thermometerLineSchema, 5000, (line) => {
    celsius.value = line.celsius
    heardAt.value++
  })
  return { ...stream, celsius, heardAt }
})

/** The sensor of the room's air, if there is one. */
export const useRoom = defineStore('room', () => {
  const celsius = ref<number>(), humidity = ref<number>()
  const stream = deviceStream('room', roomLineSchema, 10_000, (line) => {
    celsius.value = line.celsius
    humidity.value = line.humidity
  })
  return { ...stream, celsius, humidity }
})
