import { proxy } from 'comlink'
import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue'
import { UNIT, type Order } from '~core/schedule/order'
import type { Goal } from '~core/schedule/round'
import type { Plan } from '~core/plan/types'
import { orderSchema, type OrderBody } from '~contract/order'
import { plainly } from '~contract/zod'
import { oneAtATime } from '~/workers/one-at-a-time'
import type { Lists, RoundsWork, Told } from '~/workers/rounds.worker'
import { savedByItself } from '~/sync/by-itself'
import { useClock } from '~/sync/clock'
import { useLibrary } from '~/sync/library'
import { useSession } from '~/sync/session'
import { useWorlds } from '~/sync/worlds'
import { useFollowed } from './followed'
import { shiftsOf, unitOf } from './hours'

/** One order in hand: edited live, saved by itself, planned anew beside the page a moment after each change. */

const DAY_MS = 86_400_000
/** Planned so far beyond what is due, so that a late plan can be seen; and no further than this at all. */
const BEYOND_MS = 4 * DAY_MS, FURTHEST_MS = 45 * DAY_MS
const PLAN_AFTER_MS = 250
/** What a change has to win, and how much earlier or longer somebody would work. */
export const WORTH_MIN = 15, MORE_MIN = 30
/** With what is made over for what breaks. */
export const wanted = (pieces: number, spare: number) => Math.ceil(pieces * (1 + spare) - 1e-9)
const WORTH = { least: WORTH_MIN * 60 / UNIT, more: MORE_MIN * 60 / UNIT }

/** A week of one person, nine to five; opening, releasing and closing a mould, and scraping a back (custom). */
const USUAL = {
  people: [{ name: '', days: [1, 2, 3, 4, 5], from: 9 * 60, to: 17 * 60 }],
  buckets: 2, tables: 1, opening: 150, finishing: 20, spare: 0, goal: 'soonest', pours: [],
} as const satisfies Partial<OrderBody>

/** An order made of a plan: its shapes, its powder and its way of working. @param due ms */
export function orderOf(plan: Plan, copiesOf: (mould: string) => number, due: number): OrderBody {
  const lines = plan.fills.map(f => ({ mould: f.mould, pieces: f.count, copies: copiesOf(f.mould) }))
  const recipe = { ...plan, fills: [], known: { what: 'moulds' as const, amount: 0 }, coats: undefined }
  const usual = structuredClone(USUAL) as unknown as Pick<OrderBody, keyof typeof USUAL>
  return { ...usual, name: plan.name, recipe, lines, due }
}

/** @param id of the order @param made what it begins with, where it is new */
export function useOrdering(id: string, made: OrderBody) {
  const library = useLibrary(), session = useSession(), clock = useClock(), worldOf = useWorlds()
  const known = library.items.order.find(o => o.id === id)
  const body = ref<OrderBody>(JSON.parse(JSON.stringify(known?.body ?? made)) as OrderBody)
  const saved = savedByItself(() => ({ what: 'item', kind: 'order', id }), () => {
    const read = orderSchema.safeParse(body.value, { error: plainly })
    return read.success ? read.data : read.error.issues[0]!.message
  })
  saved.begin(known && { revision: known.revision, stamp: known.stamp })
  function change(part: Partial<OrderBody>): void {
    Object.assign(body.value, part)
    if (session.mayWrite) saved.touch()
  }

  /** From when it is planned: the next whole unit when it was last worked out. */
  const zero = ref(0), goal = ref<Goal>(body.value.goal)
  const told = shallowRef<Told>({ plans: {}, helps: [], chances: {}, done: 0 })
  const plain = computed(() => JSON.parse(JSON.stringify(body.value)) as OrderBody)
  const recipe = computed(() => {
    const { recipe: mix, lines } = plain.value
    return { ...mix, fills: lines.map(({ mould }) => ({ mould, count: 1 })) }
  })
  const world = computed(() => worldOf(recipe.value))
  const wrong = computed(() => {
    const read = orderSchema.safeParse(plain.value, { error: plainly })
    return read.success ? '' : read.error.issues[0]!.message
  })
  const followed = useFollowed(() => plain.value, zero)
  function orderAt(now: number): Order {
    const { due, people, pause, lines, spare } = plain.value
    const until = goal.value === 'most' ? due : Math.min(now + FURTHEST_MS, Math.max(due, now) + BEYOND_MS)
    return {
      ...plain.value, recipe: recipe.value, goal: goal.value, due: Math.max(0, unitOf(now, due)),
      horizon: Math.max(1, unitOf(now, until)), persons: shiftsOf({ people, pause }, now, until),
      // What is out is out; what broke is made again.
      lines: lines.map((l, i) => ({ ...l, pieces: Math.max(0, wanted(l.pieces, spare) - followed.value.out[i]!) })),
    }
  }
  const workers = oneAtATime<RoundsWork>(() =>
    new Worker(new URL('../../workers/rounds.worker.ts', import.meta.url), { type: 'module' }))
  /**
   * What was planned last, and of which shapes. Once something was begun it is mended, and is there at once; a wish
   * that changed is planned anew, since what was good for fewer moulds leads the search astray.
   */
  let timer: ReturnType<typeof setTimeout> | undefined, planned = '', lists: Lists = {}
  function plan(): void {
    const shapes = body.value.lines.map(l => l.mould).join(), isMended = shapes === planned && followed.value.begun
    const before = isMended ? lists : {}
    planned = shapes
    zero.value = Math.ceil(clock.now / (1000 * UNIT)) * 1000 * UNIT
    told.value = { plans: {}, helps: [], chances: {}, done: 0 }
    const order = JSON.parse(JSON.stringify(orderAt(zero.value))) as Order
    const allOut = followed.value.begun && order.lines.every(l => l.pieces === 0)
    if (wrong.value || allOut || body.value.due <= clock.now) return workers.cancel()
    const plainWorld = JSON.parse(JSON.stringify(world.value)) as typeof world.value
    const standing = JSON.parse(JSON.stringify(followed.value.standing)) as typeof followed.value.standing
    void workers.ask(work => work.plan(order, plainWorld, WORTH, standing, before, proxy((now: Told) => {
      told.value = now
      if (now.lists) lists = now.lists
    })))
  }
  // A late mark, a broken piece or an opened mould moves what is still to come, and nothing that runs.
  watch([plain, goal, () => world.value.moulds, followed.key], () => {
    clearTimeout(timer)
    timer = setTimeout(plan, PLAN_AFTER_MS)
  }, { immediate: true })
  onScopeDispose(() => {
    clearTimeout(timer)
    workers.cancel()
  })
  /** What is wanted most: kept with the order. */
  function setGoal(of: Goal): void {
    goal.value = of
    change({ goal: of })
  }
  const isKept = computed(() => library.items.order.some(o => o.id === id))
  return { body, change, saved, zero, told, goal, setGoal, world, wrong, isKept, followed }
}
