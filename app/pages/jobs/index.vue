<script setup lang="ts">
import { CHAINS } from '~core/job/chains'
import { CHAIN_WORDS, type ChainId } from '~core/job/words'
import ChainCard from '~/features/job/ChainCard.vue'
import JobList from '~/features/job/JobList.vue'
import { usePlans } from '~/sync/plans'
import { newId } from '~/sync/api'
import { useLibrary } from '~/sync/library'
import { usePours } from '~/sync/pours'
import { useSession } from '~/sync/session'

/** Work longer than one pour: what is under way, and pictures to begin from. */
const library = useLibrary(), plans = usePlans(), pours = usePours(), session = useSession()
await Promise.all([library.loaded ? undefined : library.load(), plans.load(), pours.loaded ? undefined : pours.load()])
const own = computed(() => library.items.job.filter(j => j.body.own))
const begin = (from: ChainId) => navigateTo({ path: `/jobs/${newId()}`, query: { from } })
const beginOwn = (of: string) => navigateTo({ path: `/jobs/${newId()}`, query: { of } })
</script>

<template>
  <div>
    <h1>A whole job</h1>
    <JobList />
    <template v-if="session.mayWrite">
      <section v-if="own.length > 0" aria-labelledby="own-head">
        <h2 id="own-head" class="eyebrow">Your own</h2>
        <div class="chains">
          <ChainCard
            v-for="j in own"
            :key="j.id"
            :name="j.body.name"
            what="Kept here, to begin again."
            :steps="j.body.steps"
            @begin="beginOwn(j.id)" />
        </div>
      </section>
      <section aria-labelledby="chains-head">
        <h2 id="chains-head" class="eyebrow">Begin one</h2>
        <div class="chains">
          <ChainCard
            v-for="c in CHAINS"
            :key="c.id"
            :name="CHAIN_WORDS[c.id].name"
            :what="CHAIN_WORDS[c.id].what"
            :steps="c.steps"
            @begin="begin(c.id)" />
        </div>
        <p class="small soft">Minutes and windows are common practice. Each job is yours to change once it is begun.</p>
      </section>
    </template>
  </div>
</template>

<style scoped>
h1 { margin-bottom: 12px; }
section { margin-top: 22px; }
.eyebrow { margin-bottom: 10px; }
.chains { display: grid; grid-template-columns: repeat(auto-fill, minmax(200px, 1fr)); gap: 12px; margin-bottom: 10px; }
@media (max-width: 720px) { .chains { grid-template-columns: repeat(2, minmax(0, 1fr)); gap: 8px; } }
</style>
