import { powderClass } from '~core/gypsum/powders'
import { thingsOf, workOutDoor, type DoorThings } from '~core/door/door'
import { KINDS } from '~core/door/kinds'
import { BUCKET_WORDS, KIND_WORDS, SIZE_WORDS } from '~core/door/words'
import { timesOfPlan, timesOfPour } from '~core/job/pour-times'
import type { JobStep, PourLike, PourTimes } from '~core/job/types'
import { workOutPlan } from '~core/plan/plan'
import type { Plan, PlanResult } from '~core/plan/types'
import type { PourSummary } from '~core/pour/projection'
import { forecast } from '~core/setting/moments'
import type { useWorlds } from '~/sync/worlds'

/** What the pours of a job are expected to do before they are begun: worked out once for each kind of pour. */

/** Ranges to a minute are enough for a chain. */
const SAMPLES = 60

/** What the door would mix for a step, under a name of its own. @param task what the step is called */
export function thingsLike({ kind, size, count, classId }: PourLike, task: string): DoorThings {
  const amount = { by: 'measures' as const, measures: KINDS[kind].sizes[size] }
  const things = thingsOf({ kind, amount, count, classId, way: 'weighed' }, {
    plan: task, mould: `${KIND_WORDS[kind].one}, ${SIZE_WORDS[kind][size].toLowerCase()}`,
    bucket: id => BUCKET_WORDS[id].replace(/^A /, ''), bag: powderClass(classId).name,
  })
  if (typeof things === 'string') throw new Error(`${kind} ${size} cannot be filled`)
  return things
}

const known = new Map<string, PourTimes | undefined>()
function once(key: string, work: () => PlanResult): PourTimes | undefined {
  if (!known.has(key)) {
    const { batches, setting } = work()
    const told = setting && batches.length > 0
    known.set(key, told ? timesOfPlan(batches, forecast(setting.input, SAMPLES).moments) : undefined)
  }
  return known.get(key)
}

/** @param found of a pour that was begun; one that was given up does not count */
export function timesOfStep(
  step: JobStep, found: PourSummary | undefined, planOf: (id: string) => Plan | undefined,
  worldOf: ReturnType<typeof useWorlds>,
): PourTimes | undefined {
  if (step.kind !== 'pour') return undefined
  if (found && found.status !== 'abandoned') return timesOfPour(found)
  const plan = step.plan === undefined ? undefined : planOf(step.plan)
  if (plan) {
    const world = worldOf(plan)
    return once(JSON.stringify([plan, world]), () => workOutPlan(plan, world))
  }
  const { like } = step
  return like && once(JSON.stringify(like), () => workOutDoor(thingsLike(like, '')))
}
