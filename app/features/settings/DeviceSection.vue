<script setup lang="ts">
import Button from 'primevue/button'
import { bytesWords } from '~/ui/bytes'
import { dayAndTime } from '~/ui/when'
import { notTakenWords, waitWords } from '~/features/waiting/words'
import { useChanges } from '~/sync/changes'
import { useClock } from '~/sync/clock'
import { useRecords } from '~/sync/records'
import { askToKeep, keptHere, type KeptHere } from '~/sync/room'
import { useSession } from '~/sync/session'

/** What this browser keeps: what waits to be sent, what opens without a network, and how much room is left. */
const records = useRecords(), changes = useChanges(), clock = useClock(), session = useSession()
const kept = ref<KeptHere>(), said = ref('')
const look = async () => {
  kept.value = await keptHere(session.key ?? '')
}
onMounted(look)
watch(() => records.waiting.length + changes.changes.length, look)

const many = (n: number, one: string, more: string) => `${n} ${n === 1 ? one : more}`
const oldest = computed(() => records.waiting.filter(w => !w.refused)[0]?.event.recordedAt)
async function keep() {
  said.value = await askToKeep(true) ? '' : 'The browser did not agree. Adding this page to the home screen often helps.'
  await look()
}
</script>

<template>
  <section aria-labelledby="device-head">
    <div class="group-head">
      <h2 id="device-head">On this device</h2>
      <span class="small soft">in this browser</span>
    </div>
    <dl v-if="kept" class="facts">
      <div>
        <dt>To be sent</dt>
        <dd>
          <template v-if="records.unsent + changes.unsent.length === 0">Nothing waits: the server has everything that was told here.</template>
          <template v-else>
            {{ waitWords(records.unsent, changes.unsent.length) }}{{
              oldest === undefined ? '' : `, the oldest entry from ${dayAndTime(oldest, clock.halfHour)}`
            }}. They stay here, also when you sign out.
          </template>
          <template v-if="records.refused.length + changes.refused.length > 0">
            {{ notTakenWords(records.refused.length, changes.refused.length) }}
            <NuxtLink to="/not-taken">See what and why</NuxtLink>
          </template>
        </dd>
      </div>
      <div>
        <dt>Without a network</dt>
        <dd>
          {{ many(kept.pours, 'pour opens', 'pours open') }} as they were last here, and
          {{ many(kept.answers, 'list', 'lists') }}.
        </dd>
      </div>
      <div>
        <dt>Room left</dt>
        <dd>{{ kept.left === undefined ? 'The browser does not say.' : `About ${bytesWords(kept.left)}.` }}</dd>
      </div>
      <div>
        <dt>Kept for good</dt>
        <dd>
          <template v-if="kept.forGood">Yes: the browser clears nothing of this by itself.</template>
          <template v-else-if="kept.forGood === false">
            Not promised: a device short of room may clear it.
            <Button label="Ask the browser to keep it" severity="secondary" size="small" @click="keep" />
          </template>
          <template v-else>
            The browser does not say. It does where the page is opened over https, or on the server’s own machine.
          </template>
          <span role="status">{{ said }}</span>
        </dd>
      </div>
    </dl>
  </section>
</template>

<style scoped>
.facts { margin: 0; }
.facts > div {
  display: grid;
  grid-template-columns: 136px 1fr;
  gap: 14px;
  padding: 9px 0;
  border-bottom: 1px solid var(--line);
}
dt { font-weight: 600; }
dd { margin: 0; }
@media (max-width: 520px) {
  .facts > div { grid-template-columns: 1fr; gap: 2px; }
}
</style>
