import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch, type Ref } from 'vue'
import { advisedRatio, endUse } from '~core/gypsum/end-use'
import { powderClass, powderInSentence } from '~core/gypsum/powders'
import type { Forecast, Moments, MomentsInput } from '~core/setting/moments'
import { workOutPlan } from '~core/plan/plan'
import type { Late } from '~core/plan/late'
import { reAdvised } from '~core/plan/advised'
import type { Plan, PlanWorld } from '~core/plan/types'
import type { LibraryKind } from '~contract/library'
import { planSchema, type SavedPlan } from '~contract/plan'
import { plainly } from '~contract/zod'
import { cautionsFor } from '~core/plan/cautions'
import type { PlanProblem } from '~core/plan/problems'
import { problemWords } from '~core/plan/words'
import { forecast, freeze, late as askLate } from '~/features/plan/forecasts'
import { newId, Refused } from '~/sync/api'
import { savedByItself } from '~/sync/by-itself'
import { useLibrary } from '~/sync/library'
import { usePlans } from '~/sync/plans'
import { useRecords } from '~/sync/records'
import { useWorlds } from '~/sync/worlds'
import { useSession } from '~/sync/session'
import { steady } from '~/ui/steady'

const FORECAST_AFTER_MS = 60

/** Its fields are changed one by one. */
type Mutable<T> = { -readonly [K in keyof T]: T[K] }

function emptyPlan(): Plan {
  const powder = powderClass('casting-plaster')
  return {
    name: '',
    endUse: 'painted',
    fills: [],
    classId: powder.id,
    school: 'weighed',
    ratio: advisedRatio(powder, endUse('painted')),
    scoop: { volume: 250e-6, filling: 'loose', perWater: 2 },
    waterTemperature: 20,
    roomTemperature: 20,
    losses: 0.06,
    soakMinutes: 2,
    stir: { tool: 'hand', minutes: 2 },
    additions: [],
    known: { what: 'moulds', amount: 0 },
  }
}

const planState = () => ({ id: ref(''), plan: ref(emptyPlan() as Mutable<Plan>) })
type State = ReturnType<typeof planState>

/** The plan worked out, at once. */
function workedOut({ plan }: State) {
  const worldOf = useWorlds(), session = useSession()
  /** As plain facts, read once: the arithmetic reads them thousands of times. */
  const plain = computed(() => JSON.parse(JSON.stringify(plan.value)) as Plan)
  const world = computed(() => worldOf(plain.value))
  const result = computed(() => workOutPlan(plain.value, world.value))
  const problems = steady(() => result.value.problems), powder = steady(() => result.value.powder)
  const ratio = steady(() => result.value.ratio), bag = steady(() => world.value.bag)
  /** A problem in the units of the workshop. */
  const say = (problem: PlanProblem) => problemWords(problem, session.units)
  /** The cast that takes longest to open, which the plan's moments are about. */
  const governing = computed(() => result.value.setting?.mould)
  const input = computed(() => result.value.setting?.input)
  const centre = computed(() => result.value.setting?.centre)
  const curve = computed(() => result.value.setting?.curve)
  const cautions = steady(() => cautionsFor(plain.value, world.value, centre.value))
  return { world, result, problems, powder, ratio, bag, say, governing, input, centre, curve, cautions }
}

/** Its ranges, a moment later. */
function outlookOf(input: Readonly<Ref<MomentsInput | undefined>>) {
  const outlook = shallowRef<Forecast>()
  const moments = computed(() => outlook.value?.moments)

  let forecastTimer: ReturnType<typeof setTimeout> | undefined
  watch(input, (now) => {
    clearTimeout(forecastTimer)
    if (!now) {
      outlook.value = undefined
      return
    }
    forecastTimer = setTimeout(async () => {
      const answer = await forecast([now])
      if (answer && input.value === now) outlook.value = answer[0]
    }, FORECAST_AFTER_MS)
  }, { immediate: true })
  return { outlook, moments }
}

/** What is to be said of pouring late: after its ranges, which it stands on. */
function lateness({ plan }: State, world: Readonly<Ref<PlanWorld>>, moments: Readonly<Ref<Moments | undefined>>) {
  const late = shallowRef<Late>()
  watch(moments, async (now) => {
    if (!now) {
      late.value = undefined
      return
    }
    const answer = await askLate(plan.value, world.value, now.pourBy)
    if (moments.value === now) late.value = answer
  }, { immediate: true })
  return { late }
}

/** Saving by itself, a moment after the last change. */
function savingOf({ id, plan }: State) {
  const session = useSession()
  const { saving, trouble, change: waiting, begin, touch, save } = savedByItself(
    () => ({ what: 'plan', id: id.value }),
    () => {
      const read = planSchema.safeParse(plan.value, { error: plainly })
      return read.success ? read.data : read.error.issues[0]!.message
    },
  )
  function open(wanted: SavedPlan | undefined): void {
    begin(wanted)
    id.value = wanted?.id ?? newId()
    plan.value = wanted ? JSON.parse(JSON.stringify(wanted.plan)) as Plan : emptyPlan()
  }
  /** Changes the plan and saves it a moment later. */
  function change(part: Partial<Plan>): void {
    // Field by field: what reads another one is not drawn anew.
    Object.assign(plan.value, part)
    if (session.mayWrite) touch()
  }
  return { saving, saveTrouble: trouble, waiting, open, change, save }
}

/** Whether the plan in hand is on the server, and whether it is kept at all. */
function whereItIs({ id }: State) {
  const plans = usePlans()
  return {
    onServer: computed(() => plans.told.some(p => p.id === id.value)),
    isKept: computed(() => plans.saved.some(p => p.id === id.value)),
  }
}

/** Taking a plan to the bench. @param usualName of one that has none */
function benching(usualName: () => string) {
  const session = useSession(), worldOf = useWorlds()
  /** Freezes a plan into a new pour, here: no network is needed. @returns the pour's id. @throws Refused in words */
  async function toBench(which: { readonly id?: string, readonly plan: Plan }): Promise<string> {
    const name = which.plan.name.trim() || usualName()
    const read = planSchema.safeParse({ ...which.plan, name }, { error: plainly })
    if (!read.success) throw new Refused(read.error.issues[0]!.message, 0)
    const plan = read.data, frozen = await freeze(plan, worldOf(plan))
    if (!frozen) throw new Refused('This could not be worked out here. Try it again.', 0)
    if (!frozen.ok) throw new Refused(problemWords(frozen.problems[0]!, session.units), 0)
    return useRecords().begin(plan, frozen.run, which.id)
  }
  return { toBench }
}

/** The plan in hand: edited live, worked out at once, its ranges a moment later, saved by itself. */
export const usePlanning = defineStore('planning', () => {
  const state = planState(), worked = workedOut(state), outlook = outlookOf(worked.input)
  /** What a plan that nobody named is called, from what is in it: `6 × Garden tile, gypsum cement`. */
  const usualName = computed(() => {
    const { fills, classId } = state.plan.value, powder = powderInSentence(powderClass(classId))
    const [only, ...others] = fills.flatMap((f) => {
      const mould = worked.world.value.moulds.find(m => m.id === f.mould)
      return mould ? [{ name: mould.name, count: f.count }] : []
    })
    if (!only) return ''
    const casts = fills.reduce((n, f) => n + f.count, 0)
    const what = others.length > 0 ? `${casts} casts` : only.count === 1 ? only.name : `${only.count} × ${only.name}`
    return `${what}, ${powder}`
  })
  const saving = savingOf(state)
  /** A blank plan has no questions with one answer: the only mould and bucket there are stand in it. */
  function beginNew(id: string): void {
    const { mould, bucket } = useLibrary().items
    saving.open(undefined)
    state.id.value = id
    if (mould.length === 1) state.plan.value.fills = [{ mould: mould[0]!.id, count: 1 }]
    if (bucket.length === 1) state.plan.value.bucket = bucket[0]!.id
  }
  /** What was made for this plan meanwhile stands in it. */
  function choose({ mould, bucket, bag }: Partial<Record<LibraryKind, string>>): void {
    const { fills } = state.plan.value, { items } = useLibrary(), made = items.bag.find(b => b.id === bag)
    const has = fills.some(f => f.mould === mould)
    if (mould && !has) saving.change({ fills: [...fills, { mould, count: 1 }] })
    if (bucket) saving.change({ bucket })
    if (!made) return
    const { classId, printed } = made.body
    saving.change({ ...reAdvised(state.plan.value, { classId }, printed?.ratio), bag: made.id })
  }
  return {
    ...state,
    choose,
    ...worked,
    ...outlook,
    ...lateness(state, worked.world, outlook.moments),
    ...saving,
    usualName,
    beginNew,
    ...whereItIs(state),
    ...benching(() => usualName.value || 'A pour'),
  }
})
