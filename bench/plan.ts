import { layoutCut } from '../app/features/plan/cut'
import { forecast } from '../core/setting/moments'
import { workOutPlan } from '../core/plan/plan'
import type { MouldFacts } from '../core/plan/types'
import { settingCurve } from '../core/setting/hydration'
import { expectedMilestones } from '../core/pour/milestones'
import { layoutRipples } from '../core/pour/ripples'
import { chance } from '../demo/random'
import { measure } from './measure'
import { BUCKETS, makeIds, MOULDS, planOf, WISHES } from '../demo/saltmarsh'

/**
 * What one keystroke on the Plan screen costs with 40 kinds of mould: the arithmetic and all redraw data. Target 5 ms.
 */
const ids = makeIds(chance(1))
const kinds = Array.from(
  { length: 40 },
  (_, i): MouldFacts => ({ ...Object.values(MOULDS)[i % 4]!, id: `m${i}`, name: `Mould ${i + 1}` }),
)
const plan = {
  ...planOf(ids, WISHES.lanterns),
  classId: 'pottery-plaster' as const,
  ratio: 0.7,
  fills: kinds.map(m => ({ mould: m.id, count: 2 })),
}
const world = { moulds: kinds, bucket: { id: 'tub', ...BUCKETS.tub } }

function keystroke(ratio: number): number {
  const result = workOutPlan({ ...plan, ratio }, world)
  const { input, centre } = result.setting!
  const curve = settingCurve({ ...input, ratio: result.ratio.value }, centre.open * 1.4, 140)
  return result.batches.reduce(
    (n, b) => n + layoutCut(b.fills, world.bucket.vessel, b.levels).moulds.length,
    curve.time.length,
  )
}

const result = workOutPlan(plan, world)
const { input } = result.setting!
const { moments } = forecast(input)
const milestones = expectedMilestones('weighed', result.batches[0]!, moments, undefined, 'dry')
console.log(`Node ${process.version}, ${result.batches.length} batches for 80 casts of 40 kinds`)
measure('one keystroke: plan, curve and drawings of 40 kinds', i => keystroke(0.65 + (i % 20) / 200), 300)
measure('ranges of one kind (in the worker)', () => forecast(input), 60)
measure('ripple chart layout', i => layoutRipples(milestones, i, 3, 440), 2000)
