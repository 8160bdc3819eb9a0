import { defineStore } from 'pinia'
import { computed, ref, type Ref } from 'vue'
import { METRIC, type UnitPreferences } from '~core/units/units'
import type { SessionFacts } from '~contract/account'
import { actAs, ask } from '~/sync/api'
import { forgetAnswers, remembered } from '~/sync/kept'
import { useChanges } from './changes'
import { useClock } from './clock'
import { GUEST_PERSON, guestFacts, guestHere, guestKey, leaveGuest, rememberWorkshop } from './guest'
import { latestOnly } from './latest'

/** Ways in. */
function doors(load: () => Promise<void>) {
  async function signIn(body: { email: string, password: string, code?: string }): Promise<void> {
    await ask('POST session', { body })
    await load()
  }
  /** After something else than a password opened the door. */
  async function signInBy(open: () => Promise<void>): Promise<void> {
    await open()
    await load()
  }
  async function createOwner(
    body: { workshop: string, name: string, email: string, password: string, units: typeof METRIC, code?: string },
  ): Promise<void> {
    await ask('POST owner', { body })
    await load()
  }
  async function enterDemo(): Promise<void> {
    await ask('POST demo-entrance')
    await load()
  }
  /** Over to another workshop of one's own. */
  async function goTo(workshop: string): Promise<void> {
    await ask('PUT session/workshop', { body: { workshop } })
    await forgetAnswers()
  }
  return { signIn, signInBy, createOwner, enterDemo, goTo }
}

/** Who is here, as the server last said. */
function knowing() {
  const facts = ref<SessionFacts>()
  /** Without a network these are the facts of the last time there was one. */
  const kept = ref(false)
  // Asked for at every change of the clock: an answer that was overtaken must not turn it back.
  const latest = latestOnly()
  /** Who pours here without an account: nobody is asked. */
  function asGuest(): void {
    facts.value = guestFacts()
    kept.value = false
    actAs(facts.value.person?.id)
    useClock().anchor(Date.now(), 1, false)
  }
  /** Who a guest would be, were they none: asked only once they want to keep something. */
  async function askWho(): Promise<SessionFacts> {
    actAs(undefined)
    try {
      return await ask('GET session')
    }
    finally {
      if (guestHere() !== undefined) actAs(GUEST_PERSON)
    }
  }
  /** A guest no more: what they told stays, under their own key. */
  function endGuest(): void {
    leaveGuest()
    actAs(undefined)
    facts.value = undefined
  }
  async function load(): Promise<void> {
    if (guestHere() !== undefined) return asGuest()
    const asked = performance.now()
    await latest(() => remembered('', 'GET session'), ({ value, at, fromHere }) => {
      facts.value = value
      actAs(value.person?.id)
      kept.value = fromHere
      // Kept facts tell what time it was there when they were told; the workshop's clock ran on since.
      const since = fromHere ? Date.now() - at : (performance.now() - asked) / 2
      useClock().anchor(value.clock.now + since * value.clock.rate, value.clock.rate, !fromHere)
    })
    if (facts.value) rememberWorkshop(facts.value.person !== undefined)
    if (facts.value && !facts.value.person) await forgetAnswers()
  }
  async function signOut(): Promise<void> {
    await ask('DELETE session')
    rememberWorkshop(false)
    facts.value = undefined
    actAs(undefined)
    await forgetAnswers()
  }
  return { facts, kept, load, signOut, endGuest, askWho }
}

/** The workshop's units as they were chosen here, also while that waits to be sent. */
function choosing(facts: Ref<SessionFacts | undefined>) {
  /** Of the class that somebody without an account sits in. */
  const lent = ref<UnitPreferences>()
  const units = computed<UnitPreferences>(() => {
    const mine = useChanges().inHand('workshop')?.body as { readonly units: UnitPreferences } | undefined
    return mine?.units ?? facts.value?.workshop?.units ?? lent.value ?? METRIC
  })
  /** Shown at once. Choices made quickly are all kept: each begins where the one before it left off. */
  let chosen: UnitPreferences | undefined
  async function changeUnits(part: Partial<UnitPreferences>): Promise<void> {
    const mine = chosen = { ...chosen ?? units.value, ...part }
    try {
      await useChanges().write({ target: { what: 'workshop' }, body: { units: mine } })
    }
    finally {
      if (chosen === mine) chosen = undefined
    }
  }
  /** The server has what was chosen here. */
  function haveUnits(now: UnitPreferences): void {
    const workshop = facts.value?.workshop
    if (facts.value && workshop) facts.value = { ...facts.value, workshop: { ...workshop, units: now } }
  }
  return { units, lent, changeUnits, haveUnits }
}

/** Who is here and what they may do. */
export const useSession = defineStore('session', () => {
  const { facts, kept, load, signOut, endGuest, askWho } = knowing()
  const person = computed(() => facts.value?.person)
  const mayWrite = computed(() => person.value !== undefined && person.value.role !== 'viewer')
  const isOwner = computed(() => person.value?.role === 'owner')
  /** They pour without an account, and nothing leaves this browser. */
  const isGuest = computed(() => person.value?.id === GUEST_PERSON)
  /** Entries waiting in this browser belong to this person in this workshop, and to nobody else who signs in here. */
  const key = computed(() => {
    const { person, workshop } = facts.value ?? {}, guest = isGuest.value ? guestHere() : undefined
    if (guest !== undefined) return guestKey(guest)
    return person && workshop ? `${person.id}@${workshop.id}` : undefined
  })
  return {
    facts, kept, person, mayWrite, isOwner, isGuest, key, load, signOut, endGuest, askWho,
    ...choosing(facts), ...doors(load),
  }
})
