/**
 * Lists may be overtaken by single answers: what the server took after it wrote a list is missing in that list, though
 * it is older. It is noted while a list is on its way, and laid over it once the list is here.
 */
export function overtaking<T>(lay: (newer: T) => void) {
  const onTheWay = new Set<T[]>()
  return {
    /** The server told one thing by itself. */
    heard(newer: T): void {
      lay(newer)
      for (const since of onTheWay) since.push(newer)
    },
    /** Asks for the list. @param ask puts the list in its place, then calls `layAgain` */
    async during<A>(ask: (layAgain: () => void) => Promise<A>): Promise<A> {
      const since: T[] = []
      onTheWay.add(since)
      try {
        return await ask(() => since.forEach(lay))
      }
      finally {
        onTheWay.delete(since)
      }
    },
  }
}
