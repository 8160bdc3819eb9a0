/**
 * Answers may overtake each other: of several questions on their way only the last one asked may be believed.
 * @returns a function that asks and applies the answer; when a newer question was asked meanwhile it applies nothing
 *   and is done when that one is.
 */
export function latestOnly(): <T>(question: () => Promise<T>, apply: (answer: T) => void) => Promise<void> {
  let asked = 0
  let newest: Promise<void> | undefined
  return (question, apply) => {
    const mine = ++asked
    const run = async () => {
      try {
        const answer = await question()
        if (mine === asked) return apply(answer)
      }
      catch (error) {
        if (mine === asked) throw error
      }
      await newest
    }
    newest = run()
    return newest
  }
}
