/** What becomes of entries that were sent, by what came back. Decided here for every answer there can be. */

/**
 * `signed-out`, `not-allowed`: all wait until someone signs in, or may write again. `away`: the server was not reached,
 * all wait. `later`: this pour waits, each time longer; others go on. `smaller`: it is sent in halves, so that one
 * entry holds no other. `set-aside`: this one is not taken, and stands in the list of those.
 */
export type End = 'signed-out' | 'not-allowed' | 'away' | 'later' | 'smaller' | 'set-aside'

/** Refusals of the request as it is: the same again would be refused again. */
const FOR_GOOD: readonly number[] = [400, 404, 409, 413, 422]

/**
 * @param answer its status, 0 when there was none; whether the product's own server said it, which gives a sentence
 * with each refusal: a proxy's 404 says nothing of an entry @param count entries in the request
 */
export function endOf(answer: { readonly status: number, readonly ours: boolean }, count: number): End {
  if (answer.status === 0) return 'away'
  if (answer.status === 401) return 'signed-out'
  // Too large is said before anything is read, by whoever stands in front too.
  if (answer.status !== 413 && !answer.ours) return 'later'
  if (answer.status === 403) return 'not-allowed'
  if (FOR_GOOD.includes(answer.status)) return count > 1 ? 'smaller' : 'set-aside'
  return 'later'
}

/** At most in one request: the server reads a megabyte, and a slow line should have something to show soon. */
const MOST_ENTRIES = 200
const MOST_BYTES = 300_000
const bytesOf = (thing: unknown) => new TextEncoder().encode(JSON.stringify(thing)).length

/** The first of these that go in one request; one that is larger alone goes alone. */
export function firstLot<T>(entries: readonly T[], most = { entries: MOST_ENTRIES, bytes: MOST_BYTES }): readonly T[] {
  let bytes = 0
  const fits = entries.slice(0, most.entries).findIndex((entry, i) => {
    bytes += bytesOf(entry)
    return i > 0 && bytes > most.bytes
  })
  return entries.slice(0, fits === -1 ? most.entries : fits)
}
