import { z } from '~shared/zod'
import { fieldBagLabels } from '~core/pour/labels'
import { freezing } from '~core/pour/run'
import { savedPlan, worldOf } from '../../../db/library'
import { frozenBetweenOthers } from '../../../freezing'
import { sendLabels } from '../../../pdf'
import { found, refuse, route } from '../../../route'

/** Labels for the bags of a plan that are filled at home, to print. */
export default route('viewer', { params: z.object({ id: z.uuid() }) }, async ({ event, scope, person, params }) => {
  const plan = found(await savedPlan(scope, params.id), 'There is no such plan in this workshop.')
  const frozen = await frozenBetweenOthers(freezing(plan, await worldOf(scope, plan)))
  if (!frozen.ok) throw refuse(422, frozen.problems[0]?.sentence ?? 'This plan cannot be poured yet.', frozen.problems[0]?.field)
  return sendLabels(event, fieldBagLabels(params.id, frozen.run, person.units), `Labels: ${plan.name}`)
})
