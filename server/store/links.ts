import { createHash, randomBytes, randomUUID } from 'node:crypto'
import { timesOfBegun } from '~core/job/pour-times'
import { workOutJob } from '~core/job/windows'
import type { FrozenRun } from '~core/plan/run'
import type { PourEvent } from '~core/pour/events'
import type { LinkFacts, LinkKind, NewLink, WallAnswer } from '~contract/link'
import type { Db } from './open'
import { libraryItems } from './library'
import { pourRows, pourWithEvents } from './pours'
import type { Scope } from './scope'
import { Refused } from '../refused'

const hash = (token: string) => createHash('sha256').update(token).digest('hex')
const factsOf = (row: { id: string, kind: LinkKind, name: string, created_at: Date }): LinkFacts => ({
  id: row.id,
  kind: row.kind,
  name: row.name,
  madeAt: row.created_at.getTime(),
})

export async function links(scope: Scope): Promise<LinkFacts[]> {
  return (await scope.select('link').select(['id', 'kind', 'name', 'created_at']).orderBy('created_at').execute()).map(
    factsOf,
  )
}

const MOST = 50

/** @throws Refused */
export async function makeLink(scope: Scope, kind: LinkKind, name: string): Promise<NewLink> {
  if ((await scope.select('link').select('id').execute()).length >= MOST) throw new Refused('too-many-links')
  const token = randomBytes(32).toString('base64url')
  const row = await scope.insert('link', [{ id: randomUUID(), kind, name, token_sha256: hash(token) }]).returning([
    'id',
    'kind',
    'name',
    'created_at',
  ]).executeTakeFirstOrThrow()
  return { ...factsOf(row), token }
}

/** @returns what it was for; undefined when there is no such link. */
export async function dropLink(scope: Scope, id: string): Promise<string | undefined> {
  return (await scope.remove('link').where('id', '=', id).returning('name').executeTakeFirst())?.name
}

/** The workshop a link opens, as far as a link may know it; undefined when it was taken back or never was. */
export async function workshopOfLink(db: Db, token: string, kind: LinkKind) {
  return db.selectFrom('link').innerJoin('workshop', 'workshop.id', 'link.workshop_id').select([
    'workshop.id',
    'workshop.name',
    'workshop.units',
    'workshop.clock',
    'workshop.home',
    'workshop.moving',
  ])
    .where('link.token_sha256', '=', hash(token)).where('link.kind', '=', kind).executeTakeFirst()
}

const LIVE = ['readying', 'pouring', 'setting']
const MOST_ON_THE_WALL = 12, DAY = 86_400_000

/** Only what is seen from the room: who did it, and what was noted, is left out. */
function withoutPeople(e: PourEvent): readonly PourEvent[] {
  if (e.kind === 'note') return []
  const plain = { ...e, actor: '', device: '' } as PourEvent
  return [e.kind === 'judged' ? { ...plain, kind: 'judged', data: { ...e.data, note: '' } } as PourEvent : plain]
}

/** What things cost, what is left of them and how they are kept is nobody's business in the room. */
const NOT_FOR_THE_ROOM = new Set(['cost', 'price', 'life', 'wear', 'opened', 'storage', 'note'])

/** A run as anybody in the room may see it. */
export function forTheRoom(run: FrozenRun): FrozenRun {
  const plain = JSON.parse(
    JSON.stringify(run, (key, value: unknown) => NOT_FOR_THE_ROOM.has(key) ? undefined : value),
  ) as FrozenRun
  // That a plan began with the powder that was left is stock, too.
  return { ...plain, plan: { ...plain.plan, known: { what: 'moulds', amount: 0 } } }
}

/** Pours that are live: begun within a day, the newest first. @param now on the workshop's clock. */
export async function livePours(scope: Scope, now: number): Promise<WallAnswer['pours']> {
  const rows = await scope.select('pour_projection').select('pour_id').where('status', 'in', LIVE).where(
    'started_at',
    '>',
    now - DAY,
  ).orderBy('started_at', 'desc').limit(MOST_ON_THE_WALL).execute()
  const pours = await Promise.all(rows.map(r => pourWithEvents(scope, r.pour_id)))
  return pours.flatMap(p => p ? [{ id: p.id, run: forTheRoom(p.run), events: p.events.flatMap(withoutPeople) }] : [])
}

const MOST_JOBS = 6, FURTHEST = 20 * 3_600_000

/** Jobs that were begun and have something to do within the day. @param now on the workshop's clock. */
export async function liveJobs(scope: Scope, now: number): Promise<WallAnswer['jobs']> {
  const begun = (await libraryItems(scope, 'job')).filter(j => !j.body.own && j.body.startedAt !== undefined)
  if (begun.length === 0) return []
  const summaries = new Map((await pourRows(scope)).map(p => [p.id, p.summary]))
  return begun.flatMap(({ id, body }) => {
    const pours = timesOfBegun(body.steps, pour => summaries.get(pour))
    const { steps, next } = workOutJob(body.steps, pours, now)
    const at = steps.find(s => s.id === next)
    if (!at || at.from - now > FURTHEST) return []
    return [{
      id, name: body.name, pours: [...pours].map(([step, times]) => ({ ...times, step })),
      steps: body.steps.map(({ plan: _, pour: __, ...seen }) => seen), closes: at.to ?? at.from,
    }]
  }).sort((a, b) => a.closes - b.closes).slice(0, MOST_JOBS).map(({ closes: _, ...job }) => job)
}
