import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { Plan } from '~core/plan/types'
import type { SavedPlan } from '~contract/plan'
import { untilItWorks } from './again'
import { useChanges, type Stands } from './changes'
import { remembered } from './kept'
import { latestOnly } from './latest'
import { useLive } from './live'
import { overtaking } from './overtaken'
import { usePace } from './pace'
import { useSession } from './session'

/** The plans that are kept: what the server told, with what was changed here laid over it. */
export const usePlans = defineStore('plans', () => {
  const told = ref<SavedPlan[]>([]), loaded = ref(false), trouble = ref('')
  const session = useSession(), changes = useChanges(), latest = latestOnly()
  const changed = changes.ofKind('plan')
  /** The newest first. */
  const saved = computed<readonly SavedPlan[]>(() => {
    const known = new Map(told.value.map(p => [p.id, p]))
    for (const { target, body, order, stamp } of changed.value) {
      if (target.what !== 'plan') continue
      const before = known.get(target.id)
      if (body === undefined) known.delete(target.id)
      else {
        const revision = before?.revision ?? 0
        known.set(target.id, { id: target.id, revision, updatedAt: order, stamp, plan: body as Plan })
      }
    }
    return [...known.values()].sort((a, b) => b.updatedAt - a.updatedAt)
  })
  const planOf = (id: string): Plan | undefined => saved.value.find(p => p.id === id)?.plan
  const single = overtaking(({ target, answer, revision }: Stands) => {
    if (target.what !== 'plan') return
    if (answer && (told.value.find(p => p.id === target.id)?.revision ?? 0) > revision) return
    told.value = [...answer ? [answer as SavedPlan] : [], ...told.value.filter(p => p.id !== target.id)]
  })
  changes.onStands(single.heard)
  /** @returns whether the server said it just now */
  async function load(): Promise<boolean> {
    let fresh = true
    void usePace().load()
    try {
      await single.during(layAgain => latest(() => remembered(session.key ?? '', 'GET plans'), (plans) => {
        told.value = plans.value
        fresh = !plans.fromHere
        layAgain()
      }))
      loaded.value = true
      trouble.value = ''
    }
    catch (error) {
      trouble.value = (error as Error).message
      fresh = false
    }
    return fresh
  }
  const remove = (id: string): Promise<void> => changes.write({ target: { what: 'plan', id } })
  /** A plan made elsewhere, of a recipe. */
  const bringIn = (id: string, plan: Plan): Promise<void> =>
    changes.write({ target: { what: 'plan', id }, body: plan, isNew: true })

  const heard = untilItWorks(load)
  useLive().on((message) => {
    if (loaded.value && (message.what === 'plans' || message.what === 'caught-up')) heard()
  })
  return { told, saved, planOf, loaded, trouble, load, remove, bringIn }
})
