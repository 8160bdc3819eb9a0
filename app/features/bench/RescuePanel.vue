<script setup lang="ts">
import Dialog from 'primevue/dialog'
import { rescue, troublesOf } from '~core/bench/rescue'
import { actWords, neverWords, rescueReasonWords } from '~core/bench/words'
import { troubleWords, type TroubleId } from '~core/pour/defects'
import QuantityField from '~/ui/QuantityField.vue'
import { useClock } from '~/sync/clock'
import { useRun } from '~/sync/run'
import { useSession } from '~/sync/session'
import TermText from '~/ui/TermText.vue'

/**
 * When it goes wrong: one press says what, and the best thing to do now stands there, from the state of this pour. The
 * press is written down.
 */
const { batch } = defineProps<{ batch: number }>()
const open = defineModel<boolean>('open', { required: true })
const store = useRun(), clock = useClock(), session = useSession()
const chosen = ref<TroubleId>()
const missing = ref<number>()
const troubles = computed(() => store.run ? troublesOf(store.run) : [])
const at = ref(0)
function choose(id: TroubleId) {
  chosen.value = id
  at.value = clock.read()
  if (session.mayWrite) void store.record({ kind: 'trouble', data: { trouble: id } }, batch)
}
// Worked out for the minute it was asked in: advice that changes while it is read is no advice.
const advice = computed(() =>
  chosen.value
  && rescue(chosen.value, store.runFor(batch), store.state!, {
    now: at.value,
    batch,
    missing: missing.value,
  }),
)
const heading = computed(() => chosen.value ? troubleWords(chosen.value) : 'What is wrong?')
watch(open, (now) => {
  if (now) return
  chosen.value = undefined
  missing.value = undefined
})
</script>

<template>
  <Dialog v-model:visible="open" modal :header="heading" :style="{ width: 'min(96vw, 62rem)' }" close-on-escape>
    <div v-if="!advice" class="troubles">
      <button v-for="t in troubles" :key="t" :class="{ body: t === 'on-skin' }" @click="choose(t)">
        {{ troubleWords(t) }}
      </button>
    </div>
    <div v-else class="advice">
      <div role="status"><ol><li v-for="s in advice.steps" :key="s.code"><TermText :text="actWords(s, session.units)" /></li></ol></div>
      <p v-if="advice.never" class="never">{{ neverWords(advice.never, session.units) }}</p>
      <p class="soft">{{ rescueReasonWords(advice.why, session.units) }}</p>
      <QuantityField
        v-if="chosen === 'short'"
        v-model="missing"
        kind="volume"
        clearable
        label="Missing, if you know it better"
        :check="v => (v > 0 && v < 0.5 ? undefined : 'Say how much is missing.')" />
      <div class="row">
        <button class="other" @click="chosen = undefined">Something else</button>
        <span class="small soft"
        >{{ session.mayWrite ? 'Written down with this pour.' : '' }} Data sheet, local rules and trained people come
          first.</span
        >
      </div>
    </div>
  </Dialog>
</template>

<style scoped>
.troubles {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(140px, 1fr));
  gap: 12px;
}
.troubles button {
  min-height: 76px;
  border: 1.5px solid var(--line-strong);
  border-radius: 12px;
  background: none;
  color: var(--ink);
  font-size: 1.12rem;
  font-weight: 650;
  padding: 10px;
}
.troubles button:hover {
  background: var(--action-soft);
}
.troubles .body {
  border-color: var(--heat);
  color: var(--heat);
}
.advice {
  display: grid;
  gap: 16px;
  color: var(--ink);
}
ol {
  list-style: decimal;
  padding-left: 2.2em;
  display: grid;
  gap: 10px;
  font-size: 1.2rem;
  max-width: 62ch;
}
li:first-child {
  font-size: clamp(1.5rem, 2.8vw, 2.1rem);
  font-weight: 700;
  line-height: 1.2;
}
.never {
  border-left: 4px solid var(--heat);
  padding: 2px 0 2px 12px;
  font-size: 1.15rem;
  font-weight: 600;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 16px;
  align-items: center;
}
.other {
  border: 1.5px solid var(--line-strong);
  border-radius: 10px;
  background: none;
  color: var(--ink);
  min-height: 48px;
  padding: 8px 18px;
  font-weight: 650;
}
</style>
