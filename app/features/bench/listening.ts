import { onBeforeUnmount, onMounted, ref } from 'vue'
import { commandOf, type Command } from './commands'

/**
 * The part of the browser’s speech recognition that is used; still new, and its class is not in the DOM’s own types.
 */
interface Recognition extends EventTarget {
  lang: string
  continuous: boolean
  processLocally?: boolean
  onresult: ((e: SpeechRecognitionEvent) => void) | null
  onend: (() => void) | null
  start(): void
  abort(): void
}
interface RecognitionClass {
  new(): Recognition
  available?(what: { readonly langs: readonly string[], readonly processLocally: boolean }): Promise<string>
}

const LANGUAGE = 'en-GB'

/** Spoken commands, only where the browser understands speech on this machine: nothing that is said leaves it. */
export function useListening(act: (command: Command) => void) {
  const possible = ref(false), listening = ref(false)
  let recognition: Recognition | undefined
  const found = () => (globalThis as { SpeechRecognition?: RecognitionClass }).SpeechRecognition

  onMounted(async () => {
    const Speech = found()
    possible.value = await Speech?.available?.({ langs: [LANGUAGE], processLocally: true }).then(a =>
      a === 'available', () => false) ?? false
  })
  function start(): void {
    const Speech = found()
    if (!Speech || !possible.value) return
    recognition = new Speech()
    Object.assign(recognition, { lang: LANGUAGE, continuous: true, processLocally: true })
    recognition.onresult = ({ results, resultIndex }) => {
      for (let i = resultIndex; i < results.length; i++) {
        const command = results[i]!.isFinal ? commandOf(results[i]![0]!.transcript) : undefined
        if (command) act(command)
      }
    }
    // It ends by itself after a silence; as long as it is wanted it is begun anew.
    recognition.onend = () => {
      if (listening.value) recognition?.start()
    }
    recognition.start()
    listening.value = true
  }
  function stop(): void {
    listening.value = false
    recognition?.abort()
    recognition = undefined
  }
  onBeforeUnmount(stop)
  return { possible, listening, toggle: () => listening.value ? stop() : start() }
}
