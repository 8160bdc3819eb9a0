import type { Task, Timetable } from '~core/schedule/round'
import { BLOCK_WORDS } from '~core/schedule/words'
import { listed } from '~core/units/sentences'

/**
 * What one task is, in words: `stir and fill bucket 3: 2 × Garden tile`.
 * @param before buckets of the order that were mixed already
 */
export function taskWords(task: Task, { mixings }: Timetable, shapes: readonly string[], before = 0): string {
  if (task.kind === 'open') return `open ${shapes[task.shape!]} ${task.copy! + 1}`
  const counts = mixings[task.mix]?.counts ?? []
  const fills = counts.flatMap((n, s) => n > 0 ? [`${n} × ${shapes[s]}`] : []).join(', ')
  return `${BLOCK_WORDS[task.kind]} bucket ${task.mix + 1 + before}${task.kind === 'fill' ? `: ${fills}` : ''}`
}

/**
 * The next acts of one pair of hands in one sentence: openings that follow each other together, and what comes then:
 * `open Lantern base 2 and 3, then sift bucket 4`.
 * @param tasks of one person, in the order of time
 */
export function actsWords(tasks: readonly Task[], plan: Timetable, shapes: readonly string[], before = 0): string {
  const [first] = tasks
  if (first?.kind !== 'open') return first ? taskWords(first, plan, shapes, before) : ''
  const until = tasks.findIndex(t => t.kind !== 'open'), opened = until < 0 ? tasks : tasks.slice(0, until)
  const of = [...new Set(opened.map(t => t.shape!))].map(shape =>
    `${shapes[shape]} ${listed(opened.filter(t => t.shape === shape).map(t => String(t.copy! + 1)))}`)
  return `open ${listed(of)}${until < 0 ? '' : `, then ${taskWords(tasks[until]!, plan, shapes, before)}`}`
}
