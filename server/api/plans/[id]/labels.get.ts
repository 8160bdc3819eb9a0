import { fieldBagLabels } from '~core/formats/labels'
import { frozenPlan } from '../../../frozen-plan'
import { sendLabels } from '../../../pdf'
import { serve } from '../../../route'

/** Labels for the bags of a plan that are filled at home, to print. */
export default serve('GET plans/:id/labels', async ({ event, scope, person, params, now }) => {
  const { plan, run } = await frozenPlan(scope, params.id, now)
  return sendLabels(event, fieldBagLabels(params.id, run, person.units), `Labels: ${plan.name}`)
})
