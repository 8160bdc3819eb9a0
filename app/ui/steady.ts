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

/** The same of a list, one by one: what says the same in its place stays the same thing. */
export function steadyEach<T>(get: () => readonly T[]): ComputedRef<readonly T[]> {
  return computed<readonly T[]>(before => get().map((now, i) => {
    const was = before?.[i]
    return was !== undefined && JSON.stringify(was) === JSON.stringify(now) ? was : now
  }))
}

/** A list of things that are kept elsewhere: while it is these things in this order, it stays the same list. */
export function steadyList<T extends object>(get: () => T[]): ComputedRef<T[]> {
  return computed<T[]>((before) => {
    const now = get()
    return before?.length === now.length && before.every((x, i) => x === now[i]) ? before : now
  })
}
