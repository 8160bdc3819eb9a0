import { expose } from 'comlink'
import type { PlanWorld } from '~core/plan/types'
import type { Standing, Wanted } from '~core/schedule/board'
import { boundRound, type LowerBound } from '~core/schedule/bounds'
import { chanceOf, type Chance } from '~core/schedule/chance'
import { whatHelps, type Help, type Worth } from '~core/schedule/help'
import { roundOf, type Order, type OrderProblem } from '~core/schedule/order'
import type { Goal, Timetable } from '~core/schedule/round'
import { searchPlans } from '~core/schedule/search'
import type { RoundPlan } from '~core/schedule/timetable'

/** Rounds are planned beside the page: a first plan at once, better ones while somebody watches. */

/** What is known so far. Each is told whole. */
export interface Told {
  readonly problems?: readonly OrderProblem[]
  readonly plans: Readonly<Partial<Record<Goal, Timetable>>>
  /** Their buckets in order, to be mended when something came late. */
  readonly lists?: Lists
  readonly bound?: LowerBound
  readonly powderEach?: readonly number[]
  readonly pieces?: number
  readonly helps: readonly Help[]
  /** How sure each plan is; once it is no longer bettered. */
  readonly chances: Readonly<Partial<Record<Goal, Chance>>>
  /** How far it is, 0 to 1; 1 when it is done. */
  readonly done: number
}

export type Lists = Readonly<Partial<Record<Goal, readonly Wanted[]>>>

/** How long plans of each goal are bettered, and how often better ones are told, ms. */
const BETTERED_MS = 3000, TELL_MS = 250
/** The same order gives the same plan. */
const SEED = 1

/** Lets a message in. */
const breathe = () => new Promise(done => setTimeout(done, 0))

const work = {
  /** @param standing what already is: the rest is planned around it @param before the plans of the same order so far */
  async plan(
    order: Order, world: PlanWorld, worth: Worth, standing: Standing, before: Lists, tell: (told: Told) => void,
  ): Promise<void> {
    const made = roundOf(order, world)
    if (!('round' in made)) return tell({ problems: made, plans: {}, helps: [], chances: {}, done: 1 })
    const goals: readonly Goal[] = order.goal === 'most' ? ['most'] : ['soonest', 'least work']
    const searches = goals.map(goal => ({
      goal, plans: searchPlans({ ...made.round, goal }, SEED, { standing, before: before[goal] }),
    }))
    const best = new Map<Goal, RoundPlan>(), chances: Partial<Record<Goal, Chance>> = {}, helps: Help[] = []
    const began = performance.now()
    // How soon it can be at all is known of a whole order only.
    const whole = standing.moulds.length === 0 && order.lines.every(l => l.pieces > 0)
    const bound = order.goal !== 'most' && whole ? boundRound(made.round) : undefined
    const said = (done: number) => tell({
      plans: Object.fromEntries([...best].map(([goal, { table }]) => [goal, table])),
      lists: Object.fromEntries([...best].map(([goal, { list }]) => [goal, list])),
      bound, powderEach: made.powderEach, helps, chances, done,
      pieces: made.round.shapes.reduce((n, s) => n + s.pieces, 0),
    })
    for (let told = -Infinity; ;) {
      const share = (performance.now() - began) / BETTERED_MS / goals.length
      for (const { goal, plans } of searches) best.set(goal, plans.next().value)
      if (performance.now() - told > TELL_MS) {
        said(Math.min(0.9, 0.9 * share))
        told = performance.now()
        await breathe()
      }
      if (share >= 1) break
    }
    for (const [goal, { table }] of best) {
      if (table.missing === 0) chances[goal] = chanceOf(made.round, table, made.setSd, SEED)
      await breathe()
    }
    for (const help of whatHelps({ ...made.round, goal: goals[0]! }, best.get(goals[0]!)!, worth, standing)) {
      if (help) helps.push(help)
      await breathe()
    }
    said(1)
  },
}
export type RoundsWork = typeof work
expose(work)
