/** Lessons and what is asked in them: numbers worked out by the core, so that a question is never the same twice. */

export const LESSON_IDS = ['powder', 'how-much', 'wetting', 'stirring', 'filling', 'setting', 'drying', 'safety'] as const
export type LessonId = typeof LESSON_IDS[number]

/**
 * Where an answer stands: first principles; the product's model; custom without a source; published, from memory; what
 * a teacher wrote.
 */
export type SourceTag = 'FP' | 'M' | 'CP' | 'P' | 'T'

export interface Answer {
  readonly words: string
  /** Why it is right, or why it is not. */
  readonly why: string
  readonly right: boolean
  /** What it says, where it is a number: none may come within 8 % of another. */
  readonly number?: number | undefined
}
export interface Question {
  readonly id: string
  readonly lesson: LessonId | 'page'
  readonly tag: SourceTag
  readonly asks: string
  readonly answers: readonly Answer[]
}

/** Numbers of one question, drawn by name. */
export type Draw = (name: string, low: number, high: number, step?: number) => number
export type Degrees = (celsius: number) => string
export type Part = readonly [words: string, why: string, number?: number]
/** A question as its template words it, the right answer apart. */
export interface Worded {
  readonly asks: string
  readonly right: Part
  readonly wrong: readonly Part[]
}
export interface Template {
  readonly id: string
  readonly lesson: LessonId
  readonly tag: SourceTag
  /** @param degrees writes a temperature in the units of whoever reads it */
  readonly ask: (draw: Draw, degrees: Degrees) => Worded
}
