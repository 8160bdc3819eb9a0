<script setup lang="ts">
import Button from 'primevue/button'
import { endUse } from '~core/gypsum/end-use'
import { formatConsistency } from '~core/units/format'
import { powderClass } from '~core/gypsum/powders'
import { dayAndTime } from '~/ui/when'
import { useClock } from '~/sync/clock'
import { useLibrary } from '~/sync/library'
import type { Plan } from '~core/plan/types'
import { usePlans } from '~/sync/plans'
import { usePours } from '~/sync/pours'
import { useSession } from '~/sync/session'
import { newId } from '~/sync/api'
import { readJson } from '~/ui/files'
import type { OrderBody } from '~contract/order'
import { planByRecipe, recipeSchema } from '~contract/recipe'
import EmptyPicture from '~/ui/EmptyPicture.vue'
import JobList from '~/features/job/JobList.vue'
import FileButton from '~/ui/FileButton.vue'
import MouldPicture from '~/features/library/MouldPicture.vue'
import LongList from '~/ui/LongList.vue'
import PlainButton from '~/ui/PlainButton.vue'

const plans = usePlans(), pours = usePours(), library = useLibrary(), session = useSession(), clock = useClock()
const trouble = ref('')
await Promise.all([plans.load(), library.load(), pours.loaded ? undefined : pours.load()])

function fills(plan: Plan): string {
  return plan.fills.flatMap((f) => {
    const mould = library.items.mould.find(m => m.id === f.mould)
    return mould ? `${f.count} × ${mould.body.name}` : []
  }).join(', ') || 'nothing chosen yet'
}
/** The soonest due first. */
const orders = computed(() => [...library.items.order].sort((a, b) => a.body.due - b.body.due))
const pieces = ({ lines }: OrderBody) => lines.map((l) => {
  const mould = library.items.mould.find(m => m.id === l.mould)
  return `${l.pieces} × ${mould?.body.name ?? 'a mould that was put away'}`
}).join(', ')
/** A recipe becomes a plan of one's own, in which only the moulds are still to be chosen. */
async function bringIn(file: File) {
  trouble.value = ''
  try {
    if (file.size > 100_000) throw new Error('A recipe is a small file, of a few lines.')
    const recipe = recipeSchema.safeParse(readJson(await file.text()))
    if (!recipe.success) throw new Error(recipe.error.issues[0]!.message)
    const id = newId()
    await plans.bringIn(id, planByRecipe(recipe.data))
    await navigateTo(`/plan/${id}`)
  }
  catch (error) {
    trouble.value = (error as Error).message
  }
}
async function remove(id: string) {
  try {
    await plans.remove(id)
  }
  catch (error) {
    trouble.value = (error as Error).message
  }
}
</script>

<template>
  <div>
    <header>
      <h1>Plan</h1>
      <FileButton
        v-if="session.mayWrite"
        label="Import a recipe"
        accept=".json,application/json"
        class="recipe"
        @file="bringIn" />
      <PlainButton v-if="session.mayWrite && plans.saved.length > 0" label="Many pieces by a day" @click="navigateTo(`/orders/${newId()}`)" />
      <PlainButton v-if="session.mayWrite" label="A whole job" @click="navigateTo('/jobs')" />
      <Button v-if="session.mayWrite" label="New plan" @click="navigateTo(`/plan/${newId()}`)" />
    </header>
    <p v-if="plans.trouble || trouble" class="problem" role="alert">{{ plans.trouble || trouble }}</p>
    <JobList />
    <section v-if="orders.length > 0" aria-labelledby="orders-head" class="orders">
      <h2 id="orders-head" class="eyebrow">Many pieces, by a day</h2>
      <ul class="ruled">
        <li v-for="o in orders" :key="o.id">
          <MouldPicture :mould="o.body.lines[0]?.mould" />
          <NuxtLink :to="`/orders/${o.id}`" class="row-link">
            <span class="strong">{{ o.body.name || pieces(o.body) }}</span><br>
            <span class="small soft">{{ pieces(o.body) }}</span>
          </NuxtLink>
          <span class="small">due {{ dayAndTime(o.body.due, clock.now) }}</span>
        </li>
      </ul>
    </section>
    <LongList
      v-if="plans.saved.length > 0"
      v-slot="{ item: p }"
      :items="plans.saved"
      :key-of="p => p.id"
      class="plans">
      <MouldPicture :mould="p.plan.fills[0]?.mould" />
      <NuxtLink :to="`/plan/${p.id}`" class="row-link">
        <span class="strong">{{ p.plan.name || 'Plan without a name' }}</span><br>
        <span class="small soft">{{ fills(p.plan) }}</span>
      </NuxtLink>
      <span class="small how"
      >{{ powderClass(p.plan.classId).name }} at
        <span class="num">{{ formatConsistency(p.plan.ratio) }}</span><br /><span class="soft">{{
          endUse(p.plan.endUse).name.toLowerCase()
        }}</span></span
      >
      <span class="small soft">changed {{ dayAndTime(p.updatedAt, Date.now()) }}</span>
      <PlainButton
        v-if="session.mayWrite"
        label="Archive"
        small
        :aria-label="`Archive ${p.plan.name}`"
        @click="remove(p.id)"
      />
    </LongList>
    <div v-else-if="plans.loaded" class="empty">
      <EmptyPicture :forms="['tub', 'tile', 'bowl']" />
      <p>
        No plans yet. A plan says what you fill and how you mix; everything else follows: how much water and powder, how
        many buckets, when to pour and when to open.
      </p>
    </div>
  </div>
</template>

<style scoped>
header { display: flex; flex-wrap: wrap; gap: 8px 12px; align-items: center; margin-bottom: 14px; }
.recipe { margin-left: auto; }
.orders { margin-bottom: 22px; }
.orders ul { list-style: none; padding: 0; margin: 0; }
.orders li { display: grid; grid-template-columns: 44px 2fr 1fr; gap: 16px; align-items: center; padding: 8px 0; }
.plans { --columns: 44px 2fr 1.2fr 1fr auto; --row-gap: 16px; }
@media (max-width: 720px) { .plans { --columns: 44px 1fr auto; } .how { display: none; } h1 { flex: 1 1 100%; } .recipe { margin-left: 0; } }
</style>
