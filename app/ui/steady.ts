import { computed, type ComputedRef } from 'vue'

/**
 * What is worked out anew at every stroke and mostly comes out the same: while it says the same, it stays the same
 * thing, and what shows it is not drawn again. For plain facts.
 */
export function steady<T>(get: () => T): ComputedRef<T> {
  return computed<T>((before) => {
    const now = get()
    return before !== undefined && JSON.stringify(before) === JSON.stringify(now) ? before : now
  })
}
