import { onBeforeUnmount, onMounted } from 'vue'

const HOLD_MS = 700

/** Keys of the bench. A focused control keeps its own keys; everything can be switched off. */
export function useBenchKeys(
  enabled: () => boolean,
  act: {
    readonly next: () => void
    readonly back: () => void
    readonly mute: () => void
    readonly sign: (number: number) => void
    readonly help: () => void
  },
): void {
  let holding: ReturnType<typeof setTimeout> | undefined
  const isControl = (target: EventTarget | null) =>
    target instanceof HTMLElement
    && target.closest('input, textarea, select, button, a, [role=combobox], [role=dialog]') !== null

  function down(event: KeyboardEvent): void {
    if (!enabled() || event.repeat || event.ctrlKey || event.metaKey || event.altKey || isControl(event.target)) return
    if (event.key === ' ' || event.key === 'Enter' || event.key === 'PageDown') act.next()
    else if (event.key === 'Backspace') holding = setTimeout(act.back, HOLD_MS)
    else if (event.key.toLowerCase() === 'm') act.mute()
    else if (event.key === '0') act.help()
    else if (/^[1-9]$/.test(event.key)) act.sign(Number(event.key))
    else return
    event.preventDefault()
  }
  function up(event: KeyboardEvent): void {
    if (event.key === 'Backspace') clearTimeout(holding)
  }
  onMounted(() => {
    addEventListener('keydown', down)
    addEventListener('keyup', up)
  })
  onBeforeUnmount(() => {
    clearTimeout(holding)
    removeEventListener('keydown', down)
    removeEventListener('keyup', up)
  })
}
