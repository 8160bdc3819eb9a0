import { uniform } from '../practice/noise'
import { FILLING, SETTING } from './filling-words'
import { HOW_MUCH, POWDER } from './how-much-words'
import { DRYING, SAFETY } from './safety-words'
import { formatTemperature } from '../units/format'
import { METRIC, type UnitPreferences } from '../units/units'
import type { Answer, Draw, LessonId, Part, Question, Template } from './types'
import { STIRRING, WETTING } from './wetting-words'

/** The bank of questions, and how one is drawn from it: the same seed asks the same. */

export const BANK: readonly Template[]
  = [...POWDER, ...HOW_MUCH, ...WETTING, ...STIRRING, ...FILLING, ...SETTING, ...DRYING, ...SAFETY]

/** Answers closer than this look alike once they are rounded, and a question is drawn again so often at most. */
const APART = 0.08, TRIES = 30

const answerOf = (right: boolean) => ([words, why, number]: Part): Answer => ({ words, why, right, number })
function areApart(answers: readonly Answer[]): boolean {
  const numbers = answers.flatMap(a => a.number ?? [])
  const apart = (a: number, b: number) => Math.abs(a - b) > APART * Math.max(Math.abs(a), Math.abs(b))
  return numbers.every((a, i) => numbers.every((b, j) => i >= j || apart(a, b)))
}

/** One question with its numbers, its answers in an order of their own. @param seed a whole number */
export function askQuestion(
  { id, lesson, tag, ask }: Template, seed: number, units: UnitPreferences = METRIC,
): Question {
  const degrees = (celsius: number) => formatTemperature(celsius, units)
  for (let attempt = 0; ; attempt++) {
    const draw: Draw = (name, low, high, step = 1) => {
      const steps = Math.round((high - low) / step), at = uniform(seed, `${id} ${name}`, attempt)
      return low + step * Math.min(steps, Math.floor(at * (steps + 1)))
    }
    const { asks, right, wrong } = ask(draw, degrees), answers = [answerOf(true)(right), ...wrong.map(answerOf(false))]
    if (!areApart(answers) && attempt < TRIES) continue
    const placed = answers.map((a, i) => ({ a, at: uniform(seed, `${id} place`, i) })).sort((x, y) => x.at - y.at)
    return { id, lesson, tag, asks, answers: placed.map(p => p.a) }
  }
}

export const questionsOf = (lesson: LessonId): readonly Template[] => BANK.filter(t => t.lesson === lesson)
export const template = (id: string): Template | undefined => BANK.find(t => t.id === id)

/** These are in every test, whatever else is. */
const ALWAYS = ['hand-in-plaster', 'hand-cast']
/** A test of so many questions, drawn over all lessons. */
export function drawTest(count: number, seed: number, units?: UnitPreferences): readonly Question[] {
  const rest = BANK.filter(t => !ALWAYS.includes(t.id)).map((t, i) => ({ t, at: uniform(seed, 'test', i) }))
    .sort((a, b) => a.at - b.at).map(({ t }) => t)
  const always = BANK.filter(t => ALWAYS.includes(t.id)).slice(0, 1 + seed % 2)
  return [...always, ...rest].slice(0, count).map((t, i) => askQuestion(t, seed + i, units))
}
