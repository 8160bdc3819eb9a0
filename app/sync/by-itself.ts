import { computed, ref } from 'vue'
import { useChanges } from './changes'
import { nameOf, type Target, type Version } from './kept-changes'

const SAVE_AFTER_MS = 500
/**
 * How it stands with what is in hand: `waiting` to be kept in a moment; `kept` in this browser, to be sent; `asked`
 * because it was changed elsewhere meanwhile; `failed` for the reason that is said.
 */
export type Saving = 'saved' | 'waiting' | 'kept' | 'asked' | 'failed'

/**
 * Saves the thing in hand by itself, a moment after its last change: in this browser first, then on the server.
 * @param target what is in hand @param body the whole of it as it is now; or a sentence why it cannot be saved so
 */
export function savedByItself(target: () => Target, body: () => object | string) {
  const changes = useChanges(), edited = ref<'saved' | 'waiting' | 'failed'>('saved'), problem = ref('')
  let from: Version | undefined, timer: ReturnType<typeof setTimeout> | undefined, edits = 0, begun = 0
  let inFlight: Promise<void> = Promise.resolve()
  const change = computed(() => changes.inHand(nameOf(target())))
  const saving = computed<Saving>(() => {
    if (edited.value !== 'saved') return edited.value
    if (change.value?.conflict) return 'asked'
    return change.value ? change.value.refused ? 'failed' : 'kept' : 'saved'
  })
  const trouble = computed(() => problem.value || (change.value?.refused ?? ''))

  /** Something else is in hand now. */
  function begin(version: Version | undefined): void {
    clearTimeout(timer)
    from = version
    edits++
    begun++
    edited.value = 'saved'
    problem.value = ''
  }
  function touch(): void {
    edits++
    edited.value = 'waiting'
    clearTimeout(timer)
    timer = setTimeout(() => void save(), SAVE_AFTER_MS)
  }
  /** @returns when it is kept here. */
  function save(): Promise<void> {
    clearTimeout(timer)
    inFlight = inFlight.then(saveNow)
    return inFlight
  }
  async function saveNow(): Promise<void> {
    if (edited.value === 'saved') return
    const now = body(), of = target(), at = edits, since = begun
    const end = (how: 'saved' | 'failed', why = '') => {
      if (at !== edits) return
      edited.value = how
      problem.value = why
    }
    if (typeof now === 'string') return end('failed', now)
    try {
      const { stamp, becomes } = await changes.keep({ target: of, body: now, from, isNew: from === undefined })
      if (since === begun) from = { revision: from?.revision ?? 0, stamp }
      // What the server will not take stands with the change.
      void becomes.catch(() => {}).then(() => end('saved'))
    }
    catch {
      end('failed', 'This browser could not keep it: it has no room, or keeps nothing. What you see is not saved.')
    }
  }
  return { saving, trouble, change, begin, touch, save }
}
