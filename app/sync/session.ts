import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { METRIC, type UnitPreferences } from '~core/units/units'
import type { SessionFacts } from '~contract/account'
import { ask } from '~/sync/api'
import { forgetAnswers, remembered } from '~/sync/kept'
import { useClock } from './clock'
import { latestOnly } from './latest'

/** Ways in. */
function doors(load: () => Promise<void>) {
  async function signIn(body: { email: string, password: string }): Promise<void> {
    await ask('POST session', { body })
    await load()
  }
  async function createOwner(
    body: { workshop: string, name: string, email: string, password: string, units: typeof METRIC },
  ): Promise<void> {
    await ask('POST owner', { body })
    await load()
  }
  async function enterDemo(): Promise<void> {
    await ask('POST demo-entrance')
    await load()
  }
  return { signIn, createOwner, enterDemo }
}

/** Who is here and what they may do. */
export const useSession = defineStore('session', () => {
  const facts = ref<SessionFacts>()
  /** Without a network these are the facts of the last time there was one. */
  const kept = ref(false)
  const units = computed(() => facts.value?.workshop?.units ?? METRIC)
  const person = computed(() => facts.value?.person)
  const mayWrite = computed(() => person.value !== undefined && person.value.role !== 'viewer')
  const isOwner = computed(() => person.value?.role === 'owner')
  /** Entries waiting in this browser belong to this person in this workshop, and to nobody else who signs in here. */
  const key = computed(() =>
    facts.value?.person && facts.value.workshop ? `${facts.value.person.id}@${facts.value.workshop.id}` : undefined,
  )

  // Asked for at every change of the clock: an answer that was overtaken must not turn it back.
  const latest = latestOnly()
  async function load(): Promise<void> {
    await latest(() => remembered('', 'GET session'), ({ value, at, fromHere }) => {
      facts.value = value
      kept.value = fromHere
      // Kept facts tell what time it was there when they were told; the workshop's clock ran on since.
      useClock().anchor(value.clock.now + (Date.now() - at) * value.clock.rate, value.clock.rate)
    })
    if (facts.value && !facts.value.person) await forgetAnswers()
  }
  let changing = 0
  /** Shown at once and told one after the other, so that choices made quickly are all kept. */
  async function changeUnits(part: Partial<UnitPreferences>): Promise<void> {
    const workshop = facts.value?.workshop
    if (!facts.value || !workshop) return
    const now = { ...workshop.units, ...part }
    facts.value = { ...facts.value, workshop: { ...workshop, units: now } }
    changing++
    try {
      await ask('PATCH workshop', { body: { units: now } })
    }
    finally {
      if (--changing === 0) await load()
    }
  }
  async function signOut(): Promise<void> {
    await ask('DELETE session')
    facts.value = undefined
    await forgetAnswers()
  }
  return {
    facts,
    kept,
    units,
    person,
    mayWrite,
    isOwner,
    key,
    load,
    changeUnits,
    ...doors(load),
    signOut,
  }
})
