import { randomBytes } from 'node:crypto'
import { METRIC } from '~core/units/units'
import { freezeRun, type FrozenRun } from '~core/plan/run'
import { problemWords } from '~core/plan/words'
import { REAL_TIME } from '~contract/clock'
import type { MouldBody } from '~contract/library'
import type { Db } from '../server/store/open'
import { within, type Scope } from '../server/store/scope'
import type { OrderBody } from '../contract/order'
import { saveItem, savePlan, worldOf } from '../server/store/library'
import { recordEvents, startPour } from '../server/store/recording'
import { createAccount } from '../server/store/accounts'
import { addPerson } from '../server/store/people'
import { createWorkshop } from '../server/store/workshops'
import { seedClasses } from './classes'
import { tell, type Telling } from './history'
import { demoJobs } from './jobs'
import { chance } from './random'
import { pictured } from './pictures'
import { BAGS, BUCKETS, makeIds, MOULDS, planOf, WISHES, type Ids, type MouldKey, type WishKey } from './saltmarsh'

const HOUR = 3_600_000, DAY = 24 * HOUR

/** A stored hash that no password matches: the demo is entered by its one-press entrance only. */
function noPassword(): string {
  const random = (n: number) => randomBytes(n).toString('base64').replace(/=+$/, '')
  return `$scrypt$n=16384,r=8,p=1$${random(16)}$${random(64)}`
}

interface Chapter extends Omit<Telling, 'wetAt'> {
  readonly wish: WishKey /** Since powder met water. */
  readonly hoursAgo: number
}

/** The last weeks, and today: something is setting, something is due, something is late. */
const CHAPTERS: readonly Chapter[] = [
  { wish: 'bellpulls', hoursAgo: 0.42, progress: 'setting' },
  { wish: 'lanterns', hoursAgo: 1.62, progress: 'setting' },
  { wish: 'evening', hoursAgo: 20, progress: 'setting' },
  { wish: 'rosette', hoursAgo: 7, progress: 'drying' },
  { wish: 'tiles', hoursAgo: 28, progress: 'drying' },
  { wish: 'ferns', hoursAgo: 5.5, progress: 'opened' },
  { wish: 'damp', hoursAgo: 52, progress: 'drying' },
  { wish: 'towpath', hoursAgo: 74, progress: 'drying' },
  { wish: 'lanterns', hoursAgo: 170, progress: 'drying' },
  { wish: 'rosette', hoursAgo: 220, progress: 'finished', trouble: { kind: 'hurried', share: 1 } },
  { wish: 'tiles', hoursAgo: 262, progress: 'finished' },
  { wish: 'lanterns', hoursAgo: 310, progress: 'finished', trouble: { kind: 'too-thin', share: 0.5 } },
  { wish: 'bellpulls', hoursAgo: 390, progress: 'finished' },
  { wish: 'evening', hoursAgo: 460, progress: 'finished', trouble: { kind: 'short', share: 0.12 } },
  { wish: 'towpath', hoursAgo: 530, progress: 'finished' },
  { wish: 'ferns', hoursAgo: 600, progress: 'finished' },
  { wish: 'tiles', hoursAgo: 700, progress: 'finished', trouble: { kind: 'over-stirred', share: 0.5 } },
  { wish: 'lanterns', hoursAgo: 810, progress: 'finished' },
  { wish: 'damp', hoursAgo: 930, progress: 'finished' },
]

async function seedLibrary(scope: Scope, ids: Ids, now: number, newId: () => string): Promise<void> {
  const day = (ago: number) => new Date(now - ago * DAY).toISOString().slice(0, 10)
  for (const [key, plain] of Object.entries(MOULDS) as [MouldKey, MouldBody][]) {
    const { body, keep } = pictured(key, plain, day(6), newId)
    await saveItem(scope, 'mould', ids.moulds[key], body, 0)
    await keep(scope, ids.moulds[key])
  }
  for (const [key, body] of Object.entries(BUCKETS))
    await saveItem(scope, 'bucket', ids.buckets[key as keyof typeof BUCKETS], body, 0)
  for (const [key, body] of Object.entries(BAGS))
    await saveItem(scope, 'bag', ids.bags[key as keyof typeof BAGS], {
      ...body,
      leftAt: now - DAY,
      opened: day(key === 'pottery' ? 300 : 12),
    }, 0)
}

/** One order that can be met, and one that just cannot: what helps is then told. */
function demoOrders(ids: Ids, now: number): readonly OrderBody[] {
  const everyDay = [1, 2, 3, 4, 5, 6, 7]
  const at = (days: number, hour: number) => new Date(now + days * DAY).setHours(hour, 0, 0, 0)
  // Whenever the demo begins, there is about a day's work until then: too little for three moulds, enough for eight.
  const soon = at(1, new Date(now).getHours() < 12 ? 12 : 17)
  const order = (wish: WishKey, name: string, lines: OrderBody['lines'], due: number): OrderBody => ({
    name, lines, due, recipe: { ...planOf(ids, WISHES[wish]), fills: [] },
    people: [{ name: '', days: everyDay, from: 9 * 60, to: 17 * 60 }], pause: { from: 750, to: 780 },
    buckets: 2, tables: 1, opening: 150, finishing: 20, spare: 0.05, goal: 'soonest', pours: [],
  })
  return [
    order('tiles', 'Garden tiles for the open day', [{ mould: ids.moulds.tile, pieces: 40, copies: 3 }], soon),
    order('evening', 'Lanterns and bell-pulls for the shop', [
      { mould: ids.moulds.lantern, pieces: 12, copies: 3 }, { mould: ids.moulds.bellpull, pieces: 24, copies: 6 },
    ], at(4, 16)),
  ]
}

/** Makes the demo workshop, once; `fresh` removes the one that is there first. All dates count back from `now`. */
export async function seedDemo(db: Db, now: number, { fresh = false, seed = 9 } = {}): Promise<void> {
  const existing = await db.selectFrom('workshop').select('id').where('demo', '=', true).execute()
  if (existing.length > 0 && !fresh) return
  await db.deleteFrom('workshop').where('demo', '=', true).execute()
  const c = chance(seed)
  const email = (name: string) => `${name}-${randomBytes(3).toString('hex')}@saltmarsh.invalid`
  await db.deleteFrom('account').where('email', 'like', '%@saltmarsh.invalid').execute()
  const account = (name: string) => createAccount(db, { email: email(name), passwordHash: noPassword() })
  const { workshopId, personId } = await createWorkshop(db, {
    name: 'Saltmarsh Lane',
    units: METRIC,
    clock: REAL_TIME,
    demo: true,
  }, { accountId: await account('marl'), name: 'Marl Quillhouse' })
  const scope = within(db, workshopId)
  const second = await addPerson(scope, { accountId: await account('isbet'), name: 'Isbet Fennimore', role: 'member' })
  await addPerson(scope, { accountId: await account('class'), name: 'Evening class', role: 'viewer' })

  // Ids are keys of the whole database: a second demo beside an old backup must not meet them again.
  const unique = chance(seed + (now % 1e9))
  const ids = makeIds(unique)
  await seedLibrary(scope, ids, now, unique.id)
  const runs = new Map<WishKey, FrozenRun>()
  const runFor = async (wish: WishKey): Promise<FrozenRun> => {
    const known = runs.get(wish)
    if (known) return known
    const plan = planOf(ids, WISHES[wish])
    const frozen = freezeRun(plan, await worldOf(scope, plan, now))
    if (!frozen.ok)
      throw new Error(
        `The demo plan “${plan.name}” cannot be poured: ${frozen.problems[0] && problemWords(frozen.problems[0])}`,
      )
    runs.set(wish, frozen.run)
    return frozen.run
  }
  const latest = new Map<WishKey, string>()
  for (const chapter of CHAPTERS) {
    const run = await runFor(chapter.wish)
    const actor = c.next() < 0.6 ? personId : second
    const pour = unique.id()
    const events = tell(
      run,
      { ...chapter, wetAt: now - chapter.hoursAgo * HOUR },
      now,
      { ...c, id: unique.id },
      `demo-${pour.slice(0, 4)}`,
    )
    if (!latest.has(chapter.wish)) latest.set(chapter.wish, pour)
    await startPour(scope, { id: pour, run, first: events.slice(0, 1), actor })
    if (events.length > 1) await recordEvents(scope, pour, events.slice(1), actor)
  }
  for (const wish of ['lanterns', 'towpath', 'rosette', 'damp'] as const)
    await savePlan(scope, unique.id(), planOf(ids, WISHES[wish]), 0)
  const jobs = demoJobs(now, { small: latest.get('bellpulls')!, half: latest.get('lanterns')! })
  for (const job of jobs) await saveItem(scope, 'job', unique.id(), job, 0)
  for (const order of demoOrders(ids, now)) await saveItem(scope, 'order', unique.id(), order, 0)
  await seedClasses(scope, db, personId, now)
}
