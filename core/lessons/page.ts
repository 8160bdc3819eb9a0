import { uniform } from '../practice/noise'
import type { Answer, Question } from './types'

/** A page of a teacher's own, and questions about it: read and asked like the lessons of the course. */

export interface PageAnswer {
  readonly words: string
  /** Why it is right, or why it is not; may be empty. */
  readonly why: string
}
export interface PageQuestion {
  readonly asks: string
  readonly right: PageAnswer
  readonly wrong: readonly PageAnswer[]
}
export interface Page {
  readonly name: string
  /** Paragraphs, with empty lines between. */
  readonly text: string
  readonly questions: readonly PageQuestion[]
}

export const paragraphsOf = ({ text }: Page): readonly string[] =>
  text.split(/\n\s*\n/).map(p => p.trim()).filter(p => p !== '')

/** Its questions, each with its answers in an order of its own. @param seed a whole number: the same asks the same */
export function askPage({ questions }: Page, seed: number): readonly Question[] {
  return questions.map(({ asks, right, wrong }, n) => {
    const answers: Answer[] = [{ ...right, right: true }, ...wrong.map(w => ({ ...w, right: false }))]
    const placed = answers.map((a, i) => ({ a, at: uniform(seed, `page ${n} place`, i) })).sort((x, y) => x.at - y.at)
    return { id: `page-${n}`, lesson: 'page', tag: 'T', asks, answers: placed.map(p => p.a) }
  })
}

/** How many were right. @param chosen which answer of each, as they were asked; -1 for none */
export const markPage = (page: Page, seed: number, chosen: readonly number[]): number =>
  askPage(page, seed).filter((q, i) => q.answers[chosen[i] ?? -1]?.right).length
