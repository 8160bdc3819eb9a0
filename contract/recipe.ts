import { z } from './zod'
import type { Plan } from '~core/plan/types'
import { planSchema } from './plan'

/** How a mix is made, without what it is poured into: small enough to send to a friend. SI units; docs/formats.md. */
const RECIPE_FORMAT = 'nine-ripples recipe'
const mix = planSchema.pick({
  name: true,
  endUse: true,
  classId: true,
  school: true,
  ratio: true,
  scoop: true,
  waterTemperature: true,
  roomTemperature: true,
  losses: true,
  soakMinutes: true,
  stir: true,
  additions: true,
  openAfter: true,
  secondCoatAfter: true,
})
export const recipeSchema = z.object({
  format: z.literal(RECIPE_FORMAT, 'This is not a recipe of Nine Ripples.'),
  version: z.literal(1, 'This recipe is of a newer kind; bring this program up to date first.'),
  mix,
})
type Recipe = z.infer<typeof recipeSchema>

export function recipeOf(plan: Plan): Recipe {
  return { format: RECIPE_FORMAT, version: 1, mix: mix.parse(plan) }
}

/** A new plan by a recipe: what is filled is still to be chosen. */
export function planByRecipe({ mix }: Recipe): Plan {
  return { ...mix, fills: [], known: { what: 'moulds', amount: 0 } }
}
