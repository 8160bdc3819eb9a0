import { CSV_MARK, csvRow } from '~core/formats/csv'
import type { SeatFacts } from '~contract/classroom'

const HEAD = ['seat', 'name', 'task', 'kind', 'what', 'result', 'right', 'of', 'minutes', 'to change', 'piece', 'verdict']

/** What came of a class’s tasks, a line a seat and task; then of its kits, a line a piece. */
export function resultsTable(seats: readonly SeatFacts[]): string {
  const tasks = seats.flatMap(({ number, name, results }) => results.map((r) => {
    const own = [number, name, r.task, r.kind]
    if (r.kind === 'test') return [...own, '', '', r.right, r.of]
    if (r.kind === 'page') return [...own, r.name, '', r.right, r.of]
    if (r.kind === 'lesson') return [...own, r.id, '', r.right, r.of]
    return [...own, r.id, r.verdict, undefined, undefined, Math.round(r.minutes * 10) / 10, r.named.join(' ')]
  }))
  const pieces = seats.flatMap(({ number, name, kit }) => (kit?.casts ?? []).map(c =>
    [number, name, undefined, 'kit', kit!.colour, '', undefined, undefined, undefined, '', c.label, c.verdict ?? '']))
  return CSV_MARK + [HEAD, ...tasks, ...pieces].map(csvRow).join('')
}
