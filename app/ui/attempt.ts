import { ref } from 'vue'
import { Refused } from '~/sync/api'

export interface Trouble { readonly sentence: string, readonly field?: string }

/**
 * Something that is asked of the server and may be refused: what it says is kept to be shown, at its field or beside.
 * @example const { attempt, says, trouble } = useAttempt()
 */
export function useAttempt() {
  const trouble = ref<Trouble>(), busy = ref(false)
  /** @returns whether it worked */
  async function attempt(work: () => Promise<unknown>): Promise<boolean> {
    trouble.value = undefined
    busy.value = true
    try {
      await work()
      return true
    }
    catch (error) {
      trouble.value = error instanceof Refused
        ? { sentence: error.sentence, field: error.field }
        : { sentence: 'That did not work. Try it again.' }
      return false
    }
    finally {
      busy.value = false
    }
  }
  /** What is said at a field. */
  const says = (field: string) => trouble.value?.field === field ? trouble.value.sentence : undefined
  return { trouble, busy, attempt, says }
}
