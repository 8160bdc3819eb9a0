<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import Dialog from 'primevue/dialog'
import Textarea from 'primevue/textarea'
import { DEFECTS, type DefectId } from '~core/pour/defects'
import type { Verdict } from '~core/pour/events'
import type { CastGroup } from './groups'

/** How did it turn out? Applies to every cast of the group. */
const { group } = defineProps<{ group: CastGroup | undefined }>()
const emit = defineEmits<{ judged: [verdict: Verdict, defects: DefectId[], note: string], closed: [] }>()
const defects = ref<DefectId[]>([])
const note = ref('')
/** Each opening is a dialog of its own: one that is still closing as the next is asked for would take that with it. */
const opening = ref(0)
watch(() => group, (now, before) => {
  if (now && !before) opening.value++
  defects.value = []
  note.value = ''
})
const VERDICTS: readonly { id: Verdict, word: string, meaning: string }[] = [
  { id: 'good', word: 'Good', meaning: 'as it should be' },
  { id: 'second', word: 'Second', meaning: 'usable, with faults' },
  { id: 'waste', word: 'Waste', meaning: 'not usable' },
]
</script>

<template>
  <Dialog
    :key="opening"
    :visible="group !== undefined"
    modal
    :header="group ? `How did ${group.label} turn out?` : ''"
    :style="{ width: 'min(620px, 94vw)' }"
    dismissable-mask
    @update:visible="emit('closed')"
  >
    <fieldset>
      <legend>What you see, if anything</legend>
      <div class="defects">
        <label v-for="d in DEFECTS" :key="d.id" :title="d.looks">
          <Checkbox v-model="defects" :value="d.id" :input-id="`defect-${d.id}`" />
          <span>{{ d.words }}</span>
        </label>
      </div>
    </fieldset>
    <div class="field">
      <label for="judge-note">A note, if it helps next time</label>
      <Textarea id="judge-note" v-model="note" rows="2" maxlength="2000" auto-resize />
    </div>
    <div class="verdicts">
      <Button
        v-for="v in VERDICTS"
        :key="v.id"
        :severity="v.id === 'good' ? undefined : 'secondary'"
        class="verdict"
        @click="emit('judged', v.id, defects, note)"
      >
        <span class="strong">{{ v.word }}</span><span class="small">{{ v.meaning }}</span>
      </Button>
    </div>
  </Dialog>
</template>

<style scoped>
fieldset { border: 0; padding: 0; margin: 0 0 14px; }
legend { font-weight: 600; margin-bottom: 8px; padding: 0; }
.defects { display: grid; grid-template-columns: repeat(auto-fill, minmax(165px, 1fr)); gap: 4px 12px; }
.defects label { display: flex; gap: 8px; align-items: center; min-height: 32px; cursor: pointer; }
.verdicts { display: grid; grid-template-columns: repeat(3, 1fr); gap: 10px; margin-top: 16px; }
.verdict { flex-direction: column; gap: 0; min-height: 58px; }
</style>
