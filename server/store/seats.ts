import { within } from './scope'
import type { Db } from './open'
import { LATE_DAYS, type Doing, type ResultFacts, type SeatAnswer, type SentResult } from '~contract/classroom'
import { workshopTime } from '~contract/clock'
import { drawTest } from '~core/lessons/bank'
import { markPage } from '~core/lessons/page'
import { kitOf, kitRun } from './classrooms'
import { announce } from './announce'
import { forTheRoom } from './links'
import { pourWithEvents } from './pours'
import { hashOf } from './sessions'
import { Refused } from '../refused'

/** What somebody in a class may see and tell, by the secret of their seat: themselves, the task, and their own kit. */

const DAY = 86_400_000
/** A seat is heard from this often at most, as it is written down. */
const HEARD_EVERY_MS = 20_000

/** A class that is open and lets in, by its code. */
export async function classByCode(db: Db, code: string) {
  return db.selectFrom('classroom').selectAll().where('code', '=', code).where('ends_at', '>', new Date())
    .executeTakeFirst()
}

/** Whose secret this is, with class and workshop; late by a week at most. */
export async function seatByToken(db: Db, token: string | undefined) {
  if (!token || token.length > 100) return undefined
  const seat = await db.selectFrom('seat').selectAll().where('token_sha256', '=', hashOf(token)).executeTakeFirst()
  if (!seat) return undefined
  const [room, workshop] = await Promise.all([
    db.selectFrom('classroom').selectAll().where('workshop_id', '=', seat.workshop_id).where('id', '=', seat.classroom_id)
      .executeTakeFirstOrThrow(),
    db.selectFrom('workshop').select(['units', 'clock', 'home', 'moving']).where('id', '=', seat.workshop_id).executeTakeFirstOrThrow(),
  ])
  if (Date.now() > room.ends_at.getTime() + LATE_DAYS * DAY) return undefined
  return { seat, room, workshop, scope: within(db, seat.workshop_id, workshop) }
}
export type Seated = NonNullable<Awaited<ReturnType<typeof seatByToken>>>

export const isClassOver = ({ room }: Pick<Seated, 'room'>): boolean => room.ends_at.getTime() <= Date.now()

/** What a seat is told. */
export async function seatAnswer({ seat, room, workshop, scope }: Seated): Promise<SeatAnswer> {
  const kit = kitOf(room), pour = seat.pour_id
  // Once it is begun it is what it was then, though kits were packed anew meanwhile.
  const told = kit && pour ? await pourWithEvents(scope, pour) : undefined
  return {
    seat: { id: seat.id, number: seat.number, name: seat.name },
    class: {
      name: room.name, endsAt: room.ends_at.getTime(), over: isClassOver({ room }), paused: room.paused,
      task: room.task, tasks: room.tasks,
    },
    units: workshop.units,
    clock: { now: workshopTime(workshop.clock, Date.now()), rate: workshop.clock.rate },
    ...kit && pour && {
      kit: {
        pour, colour: seat.colour, run: forTheRoom(told?.run ?? kitRun(kit.run, seat.number, seat.colour)),
        begun: (told?.events.length ?? 0) > 0, events: told?.events ?? [], seq: told?.seq ?? 0,
      },
    },
  }
}

/** Where they are now; told on to who leads. */
export async function tellDoing(db: Db, { seat, room, scope }: Seated, doing: Doing): Promise<void> {
  if (doing.task !== room.tasks) return
  await scope.update('seat').set({ doing: JSON.stringify(doing), heard_at: new Date() } as never)
    .where('id', '=', seat.id).execute()
  await announce(db, scope.workshopId, { what: 'seats', class: room.id })
}

/** That they are there. */
export async function noteSeat({ seat, scope }: Seated): Promise<void> {
  if (seat.heard_at && Date.now() - seat.heard_at.getTime() < HEARD_EVERY_MS) return
  await scope.update('seat').set({ heard_at: new Date() }).where('id', '=', seat.id).execute()
}

/** What a result is worth: a test is drawn again from its seed and marked here. @throws Refused for another task's */
function markResult({ seat, room, workshop }: Seated, sent: SentResult): ResultFacts {
  const { task } = room
  if (sent.task !== room.tasks || task.kind !== sent.kind) throw new Refused('other-task')
  if (task.kind === 'test' && sent.kind === 'test') {
    const asked = drawTest(task.questions, task.seed + seat.number, workshop.units)
    const right = asked.filter((q, i) => q.answers[sent.chosen[i] ?? -1]?.right).length
    return { kind: 'test', right, of: asked.length }
  }
  if (task.kind === 'page' && sent.kind === 'page') {
    const { page } = task
    return {
      kind: 'page', name: page.name, right: markPage(page, task.seed + seat.number, sent.chosen), of: page.questions.length,
    }
  }
  if (task.kind === 'lesson' && sent.kind === 'lesson')
    return { kind: 'lesson', id: task.id, right: Math.min(sent.right, sent.of), of: sent.of }
  if (task.kind === 'scenario' && sent.kind === 'scenario')
    return { kind: 'scenario', id: task.id, verdict: sent.verdict, named: sent.named, minutes: sent.minutes }
  throw new Refused('other-task')
}

/** A test counts as it was first handed in; of a scenario or lesson the last. */
export async function takeResult(db: Db, seated: Seated, sent: SentResult): Promise<ResultFacts> {
  const { seat, room, scope } = seated, facts = markResult(seated, sent), body = JSON.stringify(facts)
  const isOnce = facts.kind === 'test' || (room.task.kind === 'page' && room.task.test)
  await scope.insert('seat_result', [{ seat_id: seat.id, task: room.tasks, body }])
    .onConflict((c) => {
      const same = c.columns(['workshop_id', 'seat_id', 'task'])
      return isOnce ? same.doNothing() : same.doUpdateSet({ body })
    }).execute()
  await announce(db, scope.workshopId, { what: 'seats', class: room.id })
  const kept = await scope.select('seat_result').select('body').where('seat_id', '=', seat.id)
    .where('task', '=', room.tasks).executeTakeFirst()
  return kept?.body ?? facts
}
