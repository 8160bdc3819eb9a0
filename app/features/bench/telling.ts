import { useLocalStorage } from '@vueuse/core'
import { ref, watch } from 'vue'
import { fallenDue, withLead, type Cue } from '~core/bench/cues'
import { cueWords } from '~core/bench/cue-words'

export type Telling = 'spoken' | 'tone' | 'flash'
export const TELLINGS: readonly { readonly id: Telling, readonly word: string }[] = [{ id: 'spoken', word: 'Spoken' }, {
  id: 'tone',
  word: 'Tone',
}, { id: 'flash', word: 'Flash' }]

/** Seconds by which cues can be told early. */
export const LEADS = [0, 5, 10, 20, 30] as const

let audio: AudioContext | undefined

export function sound(): void {
  try {
    audio ??= new AudioContext()
    const [oscillator, gain] = [audio.createOscillator(), audio.createGain()]
    oscillator.frequency.value = 660
    gain.gain.setValueAtTime(0.0001, audio.currentTime)
    gain.gain.exponentialRampToValueAtTime(0.4, audio.currentTime + 0.03)
    gain.gain.exponentialRampToValueAtTime(0.0001, audio.currentTime + 0.9)
    oscillator.connect(gain).connect(audio.destination)
    oscillator.start()
    oscillator.stop(audio.currentTime + 1)
  }
  catch { /* A browser without sound still shows the words. */ }
}

/** @returns whether this browser speaks */
export function speak(sentences: readonly string[]): boolean {
  if (!('speechSynthesis' in globalThis)) return false
  speechSynthesis.cancel()
  for (const sentence of sentences) speechSynthesis.speak(new SpeechSynthesisUtterance(sentence))
  return true
}

/** Felt through an apron: two long beats. @returns whether this device can */
export const vibrate = (): boolean => 'vibrate' in navigator && navigator.vibrate([400, 150, 400])

/** Whether a phone shakes with every cue. */
export const useVibrates = () => useLocalStorage('bench-vibrates', true)

/**
 * Tells cues as they fall due: always as words on the screen, and aloud, as a tone or as one flash of the whole screen.
 */
export function useTelling(cues: () => readonly Cue[], now: () => number) {
  const telling = useLocalStorage<Telling>('bench-telling', 'spoken')
  const muted = useLocalStorage('bench-muted', false)
  const lead = useLocalStorage('bench-lead', 0), vibrates = useVibrates()
  const words = ref('')
  const flashing = ref(0)
  let before = now()

  /** Several that fall due together are all told: side by side on the screen, one after the other aloud. */
  function tell(due: readonly Cue[]): void {
    const said = due.map(cueWords)
    words.value = said.join(' ')
    // The flash goes with every cue unless muted: under extraction nothing is heard.
    if (muted.value) return
    if (telling.value === 'flash') flashing.value++
    else if (telling.value !== 'spoken' || !speak(said)) sound()
    if (vibrates.value) vibrate()
  }
  watch(now, (at) => {
    const due = fallenDue(withLead(cues(), lead.value), before, at)
    before = at
    if (due.length > 0) tell(due)
  })
  return { telling, muted, lead, words, flashing }
}
