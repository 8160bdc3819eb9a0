import { useLocalStorage, usePreferredDark } from '@vueuse/core'
import { computed, watchEffect } from 'vue'

/** How this device shows the pages: kept in the browser, for whoever works at it. */
export const LOOKS = [
  { id: 'light', name: 'Light' }, { id: 'dark', name: 'Dark' }, { id: 'system', name: 'As the system' },
] as const
/** Letters by their size against the usual one. */
export const LETTERS = [
  { id: 1, name: 'Usual' }, { id: 1.15, name: 'Larger' }, { id: 1.3, name: 'Largest' },
] as const
export const HANDS = [{ id: 'right', name: 'Right hand' }, { id: 'left', name: 'Left hand' }] as const

/** The usual size, px; that of app/assets/base.css. */
const USUAL_PX = 15

const look = useLocalStorage<typeof LOOKS[number]['id']>('look', 'light')
const letters = useLocalStorage<number>('letters', 1)
const hand = useLocalStorage<typeof HANDS[number]['id']>('bench-hand', 'right')

/** What was chosen, to be read and changed. */
export const useLook = () => ({ look, letters, hand })

/** Turns the page as it was chosen, and again whenever that changes. */
export function applyLook(): void {
  const system = usePreferredDark(), dark = computed(() => look.value === 'dark' || (look.value === 'system' && system.value))
  watchEffect(() => {
    const { classList, style } = document.documentElement
    classList.toggle('dark', dark.value)
    style.fontSize = letters.value === 1 ? '' : `${USUAL_PX * letters.value}px`
  })
}
