import type { Page } from '~core/lessons/page'
import { z } from './zod'

/** A page of a teacher's own: core/lessons/page.ts. */
const said = (what: string, most: number) =>
  z.string().trim().min(1, `${what} is empty.`).max(most, `Keep ${what.toLowerCase()} under ${most} letters.`)
const answer = (what: string) => z.strictObject({
  words: said(what, 200), why: z.string().trim().max(400, 'Keep a reason under 400 letters.').default(''),
})

const question = z.strictObject({
  asks: said('A question', 300),
  right: answer('The right answer'),
  wrong: z.array(answer('A wrong answer')).min(1, 'A question needs a wrong answer too.').max(3, 'Three wrong answers are enough.'),
}).refine(q => new Set([q.right, ...q.wrong].map(a => a.words)).size === 1 + q.wrong.length, 'Two answers say the same.')

export const MOST_PAGE_QUESTIONS = 20
export const pageSchema = z.strictObject({
  name: z.string().trim().min(1, 'Give the page a name.').max(80, 'Keep the name under 80 letters.'),
  text: z.string().max(8000, 'A page holds 8,000 letters; make two of it.').default(''),
  questions: z.array(question).max(MOST_PAGE_QUESTIONS, 'A page asks 20 questions at most.').default([]),
}) satisfies z.ZodType<Page>
export type PageBody = z.infer<typeof pageSchema>
