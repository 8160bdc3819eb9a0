import { randomBytes } from 'node:crypto'
import type { Doing, ResultFacts, Task } from '../contract/classroom'
import { addSeats, openClass } from '../server/store/classrooms'
import type { Db } from '../server/store/open'
import type { Scope } from '../server/store/scope'
import { hashOf } from '../server/store/sessions'

/** A class in the middle of a bucket, and one that has handed its test in. All names are invented. */

const DAY = 86_400_000
type Came = readonly [name: string, doing?: Omit<Doing, 'task'>, result?: ResultFacts]

const EVENING: readonly Came[] = [
  ['Mara', { at: 'soak' }], ['Ole', { at: 'stir' }], ['Ida', { at: 'stir', look: 'stiff' }], ['Nils', { at: 'set' }],
  ['Greta', { at: 'sift' }], ['Mara', { at: 'stir', look: 'help' }], ['Una', { at: 'opened' }],
  ['Tom', { at: 'done' }, { kind: 'scenario', id: 'heap', verdict: 'second', named: ['spread'], minutes: 148 }],
  ['Liv', { at: 'done' }, { kind: 'scenario', id: 'heap', verdict: 'good', named: [], minutes: 152 }],
]
const tested = (right: number): ResultFacts => ({ kind: 'test', right, of: 10 })
const SATURDAY: readonly Came[] = [
  ['Ada', undefined, tested(9)], ['Finn', undefined, tested(7)], ['Rike', undefined, tested(10)],
  ['Jo', undefined, tested(6)], ['Sami', undefined, tested(8)],
]

async function seedClass(
  scope: Scope, db: Db, teacher: string, name: string, task: Task, ends: Date, came: readonly Came[],
): Promise<void> {
  const id = await openClass(scope, db, teacher, name, 24)
  const token = () => hashOf(randomBytes(32).toString('base64url'))
  const seats = await addSeats(scope, db, id, came.map(([first]) => ({ name: first, token: token() })))
  const opened = new Date(Math.min(Date.now(), ends.getTime() - 3 * 3_600_000))
  await scope.update('classroom').set({ task: JSON.stringify(task), tasks: 1, ends_at: ends, opened_at: opened })
    .where('id', '=', id).execute()
  for (const [i, [, doing, result]] of came.entries()) {
    const seat = seats[i]!.id
    // Their phones are invented too, and never fall silent.
    await scope.update('seat').set({ heard_at: ends, ...doing && { doing: JSON.stringify({ ...doing, task: 1 }) } })
      .where('id', '=', seat).execute()
    if (result) await scope.insert('seat_result', [{ seat_id: seat, task: 1, body: JSON.stringify(result) }]).execute()
  }
}

export async function seedClasses(scope: Scope, db: Db, teacher: string, now: number): Promise<void> {
  const test: Task = { kind: 'test', seed: 41, questions: 10 }
  await seedClass(scope, db, teacher, 'Saturday beginners', test, new Date(now - DAY), SATURDAY)
  const heap: Task = { kind: 'scenario', id: 'heap', seed: 12 }
  await seedClass(scope, db, teacher, 'Evening class', heap, new Date(now + DAY), EVENING)
}
