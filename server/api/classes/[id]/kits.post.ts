import { frozenPlan } from '../../../frozen-plan'
import { ledClass } from '../../../lead'
import { DONE, serve } from '../../../route'
import { setKits } from '../../../store/classrooms'

export default serve('POST classes/:id/kits', async ({ scope, db, person, params, body, now }) => {
  await ledClass(scope, params.id, person)
  const { run } = await frozenPlan(scope, body.plan, now)
  await setKits(scope, db, params.id, { plan: body.plan, run }, body.colours)
  return DONE
})
