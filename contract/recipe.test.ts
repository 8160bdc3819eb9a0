import { describe, expect, it } from 'vitest'
import { chance } from '~demo/random'
import { makeIds, planOf, WISHES, type WishKey } from '~demo/saltmarsh'
import { planSchema } from './plan'
import { planByRecipe, recipeOf, recipeSchema } from './recipe'

describe('a recipe', () => {
  const ids = makeIds(chance(1))

  it('carries the mix from one workshop to another, and nothing of the first: no moulds, bag, bucket or id', () => {
    for (const wish of Object.keys(WISHES) as WishKey[]) {
      const plan = planOf(ids, WISHES[wish]), text = JSON.stringify(recipeOf(plan))
      expect(text).not.toMatch(/[0-9a-f]{8}-[0-9a-f]{4}-/)
      const back = planByRecipe(recipeSchema.parse(JSON.parse(text)))
      expect(planSchema.parse(back)).toMatchObject({
        ratio: plan.ratio,
        classId: plan.classId,
        school: plan.school,
        stir: plan.stir,
        additions: plan.additions,
        fills: [],
      })
      expect(text.length).toBeLessThan(1200)
    }
  })

  it('that is none, or newer, or out of reason, is refused in words', () => {
    const why = (x: unknown) => recipeSchema.safeParse(x).error?.issues[0]?.message
    expect(why({ format: 'other' })).toBe('This is not a recipe of Nine Ripples.')
    expect(why({ ...recipeOf(planOf(ids, WISHES.tiles)), version: 2 })).toMatch(/newer kind/)
    const recipe = recipeOf(planOf(ids, WISHES.tiles))
    expect(why({ ...recipe, mix: { ...recipe.mix, ratio: 40 } })).toBe('That is more water than any mix holds.')
  })
})
