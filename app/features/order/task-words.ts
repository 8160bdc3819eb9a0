import type { Task, Timetable } from '~core/schedule/round'
import { BLOCK_WORDS } from '~core/schedule/words'

/** What one task is, in words: `stir and fill, bucket 3: 2 × Garden tile`. */
export function taskWords(task: Task, { mixings }: Timetable, shapes: readonly string[]): string {
  if (task.kind === 'open') return `open ${shapes[task.shape!]} ${task.copy! + 1}`
  const counts = mixings[task.mix]?.counts ?? []
  const fills = counts.flatMap((n, s) => n > 0 ? [`${n} × ${shapes[s]}`] : []).join(', ')
  return `${BLOCK_WORDS[task.kind]} bucket ${task.mix + 1}${task.kind === 'fill' ? `: ${fills}` : ''}`
}
