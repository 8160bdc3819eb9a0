import { METRIC, type UnitPreferences } from './units'

/**
 * How codes become words. Logic returns codes with their numbers; a room's `words.ts` has a table with one sentence for
 * each. A code without a sentence does not compile, and nothing reads a sentence.
 */

/** Anything that is said: a code, and the numbers its sentence needs. */
interface Coded { readonly code: string }

/** The member of a union whose code can be `K`; several codes may share one. */
type Of<C extends Coded, K> = C extends unknown ? K extends C['code'] ? C : never : never

/** One sentence for each code of `C`, from its own numbers and whatever else all sentences are written with. */
export type Sentences<C extends Coded, With extends readonly unknown[] = []> = {
  readonly [K in C['code']]: string | ((said: Of<C, K>, ...using: With) => string)
}

/**
 * The sentence of a code.
 * @example sentenceOf(RELEASE_WORDS, { code: 'halves', straps: 2 })
 */
export function sentenceOf<C extends Coded, With extends readonly unknown[]>(
  table: Sentences<C, With>,
  said: C,
  ...using: With
): string {
  const entry = table[said.code as C['code']] as string | ((said: C, ...using: With) => string)
  return typeof entry === 'string' ? entry : entry(said, ...using)
}

/** A sentence that may name a quantity: then it is written in the units of whoever reads it. */
export type Worded = string | ((prefs: UnitPreferences) => string)
export const wordedIn = (words: Worded, prefs: UnitPreferences = METRIC): string =>
  typeof words === 'string' ? words : words(prefs)

/** “a”, “a and b”, “a, b and c”. */
export function listed(parts: readonly string[]): string {
  return parts.length < 2 ? parts.join('') : `${parts.slice(0, -1).join(', ')} and ${parts.at(-1)}`
}

/** With its first letter large. */
export const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1)
/** With its first letter small, to stand within a sentence. */
export const within = (words: string) => words.charAt(0).toLowerCase() + words.slice(1)

/** A table of facts with its words beside them, for whoever shows both. */
export function withWords<K extends string, F extends object, W extends object>(
  facts: Readonly<Record<K, F>>,
  words: Readonly<Record<K, W>>,
): Readonly<Record<K, F & W>> {
  return Object.fromEntries((Object.keys(facts) as K[]).map(k => [k, { ...facts[k], ...words[k] }])) as Record<K, F & W>
}
