import { randomInt, randomUUID } from 'node:crypto'
import { castsOf, stepsOf, type FrozenRun } from '~core/plan/run'
import { EVENT_VERSION } from '~core/pour/events'
import { CODE_LENGTH, CODE_SIGNS } from '~contract/class-code'
import {
  MOST_SEATS, type ChangeClass, type ClassAnswer, type ClassRow, type KitFacts, type SeatFacts,
} from '~contract/classroom'
import type { SentEvent } from '~contract/pour'
import { Refused } from '../refused'
import { announce } from './announce'
import type { Db } from './open'
import { recordEvents, startPour } from './recording'
import type { Scope } from './scope'
import { upcastRun } from '~contract/versions'
import { readable } from './set-aside'

/** Classes as their teacher has them. What a seat may do stands in seats.ts. */

const HOUR = 3_600_000
/** Open at once in one workshop, and as many as are listed. */
const MOST_OPEN = 30, MOST_LISTED = 100

const newCode = () => Array.from({ length: CODE_LENGTH }, () => CODE_SIGNS[randomInt(CODE_SIGNS.length)]).join('')

type Row = Awaited<ReturnType<typeof classRow>>
async function classRow(scope: Scope, id: string) {
  return scope.select('classroom').selectAll('classroom').where('id', '=', id).executeTakeFirst()
}
const isOver = (row: { readonly ends_at: Date }, now = Date.now()) => row.ends_at.getTime() <= now

export async function classes(scope: Scope): Promise<ClassRow[]> {
  const rows = await scope.select('classroom').select(['id', 'name', 'opened_at', 'ends_at'])
    .orderBy('opened_at', 'desc').limit(MOST_LISTED).execute()
  const seats = await scope.select('seat').select(eb => ['classroom_id', eb.fn.countAll<number>().as('n')])
    .where('sent_out', '=', false).groupBy('classroom_id').execute()
  return rows.map(r => ({
    id: r.id, name: r.name, openedAt: r.opened_at.getTime(), endsAt: r.ends_at.getTime(), over: isOver(r),
    seats: Number(seats.find(s => s.classroom_id === r.id)?.n ?? 0),
  }))
}

/** Opens a class with a code that no other open class has. @throws Refused */
export async function openClass(scope: Scope, db: Db, teacher: string, name: string, hours: number): Promise<string> {
  const open = await scope.select('classroom').select('id').where('ends_at', '>', new Date()).execute()
  if (open.length >= MOST_OPEN) throw new Refused('too-many-classes')
  for (;;) {
    const code = newCode()
    const taken = await db.selectFrom('classroom').select('id').where('code', '=', code).where('ends_at', '>', new Date())
      .executeTakeFirst()
    if (taken) continue
    const id = randomUUID()
    await scope.insert('classroom', [{ id, name, code, teacher, ends_at: new Date(Date.now() + hours * HOUR) }]).execute()
    return id
  }
}

/** Whether this person may lead it: its teacher, or an owner. */
export async function leadsClass(scope: Scope, id: string, who: { readonly id: string, readonly role: string }) {
  const row = await classRow(scope, id)
  return row && { row, leads: row.teacher === who.id || who.role === 'owner' }
}

const tell = (scope: Scope, db: Db, id: string, what: 'class' | 'seats') =>
  announce(db, scope.workshopId, { what, class: id })

export async function changeClass(scope: Scope, db: Db, id: string, change: ChangeClass, who: string): Promise<void> {
  const { name, shut, paused, kept, ended, taken, task } = change
  const set = {
    ...name !== undefined && { name }, ...shut !== undefined && { shut }, ...paused !== undefined && { paused },
    ...kept !== undefined && { kept }, ...ended && { ends_at: new Date() }, ...taken && { teacher: who },
  }
  const next = task && { task: JSON.stringify(task), paused: false }
  if (Object.keys(set).length > 0 || next) await scope.update('classroom').set(eb => ({
    ...set, ...next && { ...next, tasks: eb('tasks', '+', 1) },
  }) as never).where('id', '=', id).execute()
  // What was told of the task before is not of this one.
  if (task) await scope.update('seat').set({ doing: null }).where('classroom_id', '=', id).execute()
  await tell(scope, db, id, 'class')
}

/** With its seats, their names and what came of their tasks; what was poured stays. */
export async function dropClass(scope: Scope, db: Db, id: string): Promise<string | undefined> {
  const gone = await scope.remove('classroom').where('id', '=', id).returning('name').executeTakeFirst()
  if (gone) await tell(scope, db, id, 'class')
  return gone?.name
}

/** The next seats of a class, those without a phone too. @throws Refused when there is no more room */
export async function addSeats(
  scope: Scope, db: Db, id: string, seats: readonly { readonly name: string, readonly token?: string }[],
): Promise<{ readonly id: string, readonly number: number }[]> {
  const made = await scope.frontTransaction(async (inner) => {
    // One at a time: numbers are given in order.
    await inner.select('classroom').select('id').where('id', '=', id).forUpdate().execute()
    const taken = await inner.select('seat').select('number').where('classroom_id', '=', id).execute()
    if (taken.length + seats.length > MOST_SEATS) throw new Refused('class-full')
    const first = 1 + Math.max(0, ...taken.map(t => t.number))
    const rows = seats.map(({ name, token }, i) => ({
      id: randomUUID(), classroom_id: id, number: first + i, name, token_sha256: token ?? null,
      heard_at: token ? new Date() : null, pour_id: randomUUID(),
    }))
    await inner.insert('seat', rows).execute()
    return rows.map(r => ({ id: r.id, number: r.number }))
  })
  await tell(scope, db, id, 'seats')
  return made
}

/** Its secret opens nothing any more; what it told stays with its number. */
export async function sendOut(scope: Scope, db: Db, id: string, seat: string): Promise<boolean> {
  const gone = await scope.update('seat').set({ sent_out: true, token_sha256: null, name: '' })
    .where('id', '=', seat).where('classroom_id', '=', id).returning('id').executeTakeFirst()
  await tell(scope, db, id, 'class')
  await tell(scope, db, id, 'seats')
  return gone !== undefined
}

/** One kit as it is poured, and a colour for each seat in turn. */
export async function setKits(
  scope: Scope, db: Db, id: string, kit: { readonly plan: string, readonly run: FrozenRun }, colours: readonly string[],
): Promise<void> {
  await scope.update('classroom').set({ kit: JSON.stringify(kit) } as never).where('id', '=', id).execute()
  const seats = await scope.select('seat').select(['id', 'number']).where('classroom_id', '=', id).orderBy('number').execute()
  for (const [i, { id: seat }] of seats.entries()) {
    const colour = colours.length > 0 ? colours[i % colours.length]! : ''
    await scope.update('seat').set({ colour }).where('id', '=', seat).execute()
  }
  await tell(scope, db, id, 'class')
}

/** A run for one seat: named by its number, so that no pupil’s name stands in the record. */
export function kitRun(run: FrozenRun, number: number, colour: string): FrozenRun {
  const name = `Kit ${number}${colour && `, ${colour}`}: ${run.plan.name}`.slice(0, 120)
  return { ...run, plan: { ...run.plan, name } }
}
/** Who told it, as the record has it: a seat by its number. */
export const seatActor = (number: number): string => `seat ${number}`

interface Began { readonly number: number, readonly pour: string, readonly colour: string }
/** A kit’s own pour; begun again it is the same. @param at on the workshop’s clock */
export async function beginKit(scope: Scope, run: FrozenRun, seat: Began, at: number, device: string): Promise<void> {
  await startPour(scope, {
    id: seat.pour, run: kitRun(run, seat.number, seat.colour), actor: seatActor(seat.number),
    first: [{
      id: randomUUID(), version: EVENT_VERSION, kind: 'stage', data: { stage: 'ready', from: 'unbegun' }, batch: 0,
      happenedAt: at, recordedAt: at, device, deviceSeq: 0,
    }],
  })
}

/** What a teacher who leads tells of a step, for one kit: that it begins; after filling, that its moulds are full. */
function ledEntries(run: FrozenRun, at: number, now: number): SentEvent[] {
  const steps = stepsOf(run), step = steps[at]!, before = steps[at - 1]
  const envelope = (deviceSeq: number) => ({
    id: randomUUID(), version: EVENT_VERSION as typeof EVENT_VERSION, happenedAt: now, recordedAt: now, device: 'lead',
    deviceSeq,
  })
  const full = before?.stage === 'fill' ? castsOf(run).filter(c => c.batch === before.batch) : []
  const from = before?.batch === step.batch ? before.stage : undefined
  return [
    ...full.map((c, i): SentEvent => ({ ...envelope(1000 * at + i), kind: 'filled', data: { cast: c.id }, batch: c.batch })),
    { ...envelope(1000 * at + 999), kind: 'stage', data: { stage: step.stage, ...from && { from } }, batch: step.batch },
  ]
}

/**
 * The same step for every kit whose seat has no phone: what a teacher leads is marked for all of them at once.
 * @param at which of the run’s steps begins @param now on the workshop’s clock @returns how many kits there are
 */
export async function leadKits(
  scope: Scope, db: Db, id: string, run: FrozenRun, at: number, now: number,
): Promise<number> {
  const seats = await scope.select('seat').select(['number', 'pour_id', 'colour']).where('classroom_id', '=', id)
    .where('token_sha256', 'is', null).where('sent_out', '=', false).execute()
  if (!stepsOf(run)[at]) throw new Refused('no-such-step')
  await Promise.all(seats.map(async ({ number, pour_id: pour, colour }) => {
    if (!pour) return
    await beginKit(scope, run, { number, pour, colour }, now, 'lead')
    if (at > 0) await recordEvents(scope, pour, ledEntries(run, at, now), seatActor(number))
  }))
  await scope.update('classroom').set({ led: at }).where('id', '=', id).execute()
  await tell(scope, db, id, 'class')
  return seats.length
}

async function kitsOf(scope: Scope, pours: readonly string[]) {
  if (pours.length === 0) return new Map<string, Pick<KitFacts, 'stage' | 'casts'>>()
  const [rows, casts] = await Promise.all([
    scope.select('pour_projection').select('pour_id').where('pour_id', 'in', pours).execute(),
    scope.select('cast_projection').select(['pour_id', 'body']).where('pour_id', 'in', pours).orderBy('cast_id').execute(),
  ])
  return new Map(rows.map(r => [r.pour_id, {
    casts: casts.filter(c => c.pour_id === r.pour_id)
      .map(c => ({ id: c.body.id, label: c.body.label, ...c.body.verdict && { verdict: c.body.verdict } })),
  }]))
}

type Whose = Pick<SeatFacts, 'results'>
async function resultsOf(scope: Scope, id: string): Promise<Map<string, Whose['results']>> {
  const rows = await scope.select('seat_result').innerJoin('seat', join => join
    .onRef('seat.workshop_id', '=', 'seat_result.workshop_id').onRef('seat.id', '=', 'seat_result.seat_id'))
    .select(['seat_result.seat_id as seat', 'seat_result.task as task', 'seat_result.body as body'])
    .where('seat.classroom_id', '=', id).orderBy('seat_result.task').execute()
  const all = new Map<string, Whose['results'][number][]>()
  for (const { seat, task, body } of rows) all.set(seat, [...all.get(seat) ?? [], { task, ...body }])
  return all
}

/** All of its seats, those that were sent out left out. */
export async function seatsOf(scope: Scope, id: string, isKit: boolean): Promise<SeatFacts[]> {
  const rows = await scope.select('seat').selectAll('seat').where('classroom_id', '=', id).where('sent_out', '=', false)
    .orderBy('number').execute()
  const [results, kits] = await Promise.all([
    resultsOf(scope, id), kitsOf(scope, isKit ? rows.flatMap(r => r.pour_id ?? []) : []),
  ])
  return rows.map((r): SeatFacts => {
    const kit = r.pour_id ? kits.get(r.pour_id) : undefined
    return {
      id: r.id, number: r.number, name: r.name, phone: r.token_sha256 !== null, results: results.get(r.id) ?? [],
      ...r.heard_at && { heardAt: r.heard_at.getTime() }, ...r.doing && { doing: r.doing },
      ...isKit && r.pour_id && {
        kit: { pour: r.pour_id, colour: r.colour, begun: kit !== undefined, casts: kit?.casts ?? [] },
      },
    }
  })
}

/** What one kit is, as it can be read now. */
export function kitOf(row: NonNullable<Row>): { readonly plan: string, readonly run: FrozenRun } | undefined {
  return row.kit ? { plan: row.kit.plan, run: readable(upcastRun(row.kit.run)) } : undefined
}

/** Everything that whoever leads a class is told. @param now on the server’s clock */
export async function classAnswer(
  scope: Scope, row: NonNullable<Row>, leads: boolean, now: number,
): Promise<Omit<ClassAnswer, 'teacher'>> {
  const kit = kitOf(row), all = await seatsOf(scope, row.id, kit !== undefined)
  const powder = kit?.run.batches.reduce((sum, b) => sum + b.mix.powder, 0) ?? 0
  return {
    id: row.id, name: row.name, openedAt: row.opened_at.getTime(), endsAt: row.ends_at.getTime(),
    over: isOver(row, now), leads, ...!isOver(row, now) && { code: row.code },
    shut: row.shut, paused: row.paused, kept: row.kept, task: row.task, tasks: row.tasks, seats: all.length, all, now,
    ...kit && { kit: { ...kit, powder: powder * all.length, led: row.led } },
  }
}
