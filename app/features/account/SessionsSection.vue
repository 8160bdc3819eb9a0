<script setup lang="ts">
import Button from 'primevue/button'
import type { SessionRow } from '~contract/account'
import { ask } from '~/sync/api'
import { useAttempt } from '~/ui/attempt'
import { dayAndTime } from '~/ui/when'
import { deviceWords } from '~/features/settings/words'

/** Where one is signed in; each can be ended from here, at once. */
const { sessions } = defineProps<{ sessions: readonly SessionRow[] }>()
const emit = defineEmits<{ changed: [] }>()
const { trouble, attempt } = useAttempt()
const others = computed(() => sessions.filter(s => !s.here))
const act = (work: () => Promise<unknown>) => attempt(async () => {
  await work()
  emit('changed')
})
const end = (id: string) => act(() => ask('DELETE account/sessions/:id', { params: { id } }))
const endOthers = () => act(() => ask('DELETE account/sessions'))
</script>

<template>
  <section aria-labelledby="sessions-head">
    <div class="group-head">
      <h2 id="sessions-head">Where you are signed in</h2>
      <span class="small soft">ending one closes it at once, wherever it is</span>
    </div>
    <p v-if="trouble" class="problem" role="alert">{{ trouble.sentence }}</p>
    <ul class="ruled">
      <li v-for="s in sessions" :key="s.id">
        <span>
          <span class="strong">{{ deviceWords(s.device) }}</span>{{ s.here ? ', this one' : '' }}<br>
          <span class="small soft">
            last used {{ dayAndTime(s.usedAt, Date.now()) }} from {{ s.place }}, signed in {{ dayAndTime(s.madeAt, Date.now()) }}
          </span>
        </span>
        <Button
          v-if="!s.here"
          label="End"
          severity="secondary"
          size="small"
          :aria-label="`End the session of ${deviceWords(s.device)}`"
          @click="end(s.id)"
        />
      </li>
    </ul>
    <Button v-if="others.length > 1" label="End all others" severity="secondary" class="all" @click="endOthers" />
  </section>
</template>

<style scoped>
li { display: flex; justify-content: space-between; align-items: center; gap: 14px; padding: 8px 0; }
.all { margin-top: 12px; }
</style>
