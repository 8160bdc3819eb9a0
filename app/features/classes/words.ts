import { LESSON_WORDS } from '~core/lessons/words'
import { LEVER_WORDS, PRACTICE_VERDICT_WORDS, SCENARIO_WORDS } from '~core/practice/words'
import type { LeverId } from '~core/practice/levers'
import type { DoingId, Look, ResultFacts, SeatFacts, Task } from '~contract/classroom'

/** What a class page says. */

export const DOING_WORDS: Readonly<Record<DoingId, string>> = {
  'began': 'not begun', 'gauge': 'measures', 'ready': 'gets ready', 'weigh': 'has the water', 'sift': 'sifts', 'soak': 'lets it soak',
  'stir': 'stirs', 'fill': 'fills', 'clean-up': 'cleans up', 'set': 'has poured', 'dry': 'dries', 'opened': 'has opened it',
  'reads': 'reads', 'asked': 'answers', 'done': 'is done',
}
export const LOOK_WORDS: Readonly<Record<Look, string>> = {
  help: 'asks for help', stiff: 'the mix stands and is stiff', trouble: 'something is wrong',
}

/** What the class does now. */
export function taskWords(task: Task): string {
  switch (task.kind) {
    case 'none': return 'Nothing set: they look at you.'
    case 'scenario': return `Practice: ${SCENARIO_WORDS[task.id].name}`
    case 'lesson': return `Lesson: ${LESSON_WORDS[task.id].title}`
    case 'test': return `A test of ${task.questions}`
    case 'page': return task.test ? `A test on “${task.page.name}”` : `To read: ${task.page.name}`
    case 'kits': return 'Real kits'
  }
}

export const KIND_WORDS: Readonly<Record<ResultFacts['kind'], string>> = {
  scenario: 'Practice', lesson: 'Lesson', test: 'Test', page: 'Page',
}
export function resultWords(result: ResultFacts): string {
  switch (result.kind) {
    case 'scenario': return PRACTICE_VERDICT_WORDS[result.verdict]
    case 'lesson':
    case 'page':
    case 'test': return `${result.right} of ${result.of} right`
  }
}
/** The one thing that the debrief named. */
export const namedWords = (result: ResultFacts): string =>
  result.kind === 'scenario' ? result.named.map(l => LEVER_WORDS[l as LeverId] ?? '').join(' ') : ''

/** Where a seat is, in a few words. @param tasks how many tasks there were: what came of an earlier is not of this */
export function seatWords({ doing, results, phone, kit }: SeatFacts, tasks: number): string {
  const result = results.find(r => r.task === tasks)
  if (result) return resultWords(result)
  if (!phone) return kit?.begun ? 'led from here' : 'no phone'
  if (!doing || doing.task !== tasks) return DOING_WORDS.began
  const counted = doing.of ? ` ${Math.min(doing.of, (doing.done ?? 0) + 1)} of ${doing.of}` : ''
  return `${DOING_WORDS[doing.at]}${doing.at === 'asked' ? counted : ''}`
}
