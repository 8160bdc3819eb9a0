import { format } from 'date-fns'
import ical from 'ical-generator'
import type { Task, Timetable } from '~core/schedule/round'
import { csvRow, CSV_MARK } from '~core/formats/csv'
import { instantOf } from './hours'
import { taskWords } from './task-words'

/** A plan as a table and as a calendar, for whoever is not at this screen. */

interface Named {
  readonly name: string
  readonly zero: number
  readonly people: readonly string[]
  readonly shapes: readonly string[]
}

const inOrder = ({ tasks }: Timetable): readonly Task[] =>
  [...tasks].sort((a, b) => a.from - b.from || a.person - b.person)
const personOf = (people: readonly string[], number: number) => people[number] || `Person ${number + 1}`

/** One row a task: when, who, what. */
export function planTable(table: Timetable, { zero, people, shapes }: Named): string {
  const at = (unit: number) => format(instantOf(zero, unit), 'yyyy-MM-dd HH:mm:ss')
  const rows = inOrder(table).map(t => [at(t.from), at(t.to), personOf(people, t.person), taskWords(t, table, shapes)])
  return CSV_MARK + [['from', 'to', 'person', 'what'], ...rows].map(csvRow).join('')
}

/** One entry a bucket and one an opening; ids stay the same, so that a calendar moves what it knows. */
export function planCalendar(table: Timetable, id: string, { name, zero, shapes }: Named): string {
  const calendar = ical({ name: name || 'An order' })
  for (const t of inOrder(table)) {
    if (t.kind !== 'fill' && t.kind !== 'open') continue
    const from = t.kind === 'fill' ? table.mixings[t.mix]!.wet : t.from
    calendar.createEvent({
      id: `${id}-${t.kind}-${t.mix}-${t.shape ?? ''}-${t.copy ?? ''}`,
      start: new Date(instantOf(zero, from)),
      end: new Date(instantOf(zero, t.to)),
      summary: taskWords(t, table, shapes),
    })
  }
  return calendar.toString()
}
