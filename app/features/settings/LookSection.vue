<script setup lang="ts">
import SelectButton from 'primevue/selectbutton'
import { sound, speak, useVibrates, vibrate } from '~/features/bench/telling'
import { HANDS, LETTERS, LOOKS, useLook } from '~/ui/look'
import PlainButton from '~/ui/PlainButton.vue'

/** How this device looks and sounds: for whoever works at it, not for the whole workshop. */
const { look, letters, hand } = useLook()
const vibrates = useVibrates(), said = ref('')
const SHAKES = [{ id: true, name: 'With every cue' }, { id: false, name: 'Never' }] as const
function trySpeech() {
  said.value = speak(['Start pouring.']) ? 'Said: “Start pouring.” Heard nothing? Turn the device up.' : 'This browser does not speak.'
}
function tryTone() {
  sound()
  said.value = 'One tone. Heard nothing? Turn the device up.'
}
function tryShake() {
  said.value = vibrate() ? 'It should have shaken twice.' : 'This device or browser does not vibrate.'
}
</script>

<template>
  <section aria-labelledby="look-head">
    <div class="group-head">
      <h2 id="look-head">Look and sound</h2>
      <span class="small soft">of this device</span>
    </div>
    <div class="unit">
      <span id="look-of" class="strong">Pages</span>
      <SelectButton
        v-model="look" :options="[...LOOKS]" option-label="name" option-value="id" :allow-empty="false"
        aria-labelledby="look-of" />
    </div>
    <div class="unit">
      <span id="letters-of" class="strong">Letters</span>
      <SelectButton
        v-model="letters" :options="[...LETTERS]" option-label="name" option-value="id" :allow-empty="false"
        aria-labelledby="letters-of" />
    </div>
    <div class="unit">
      <span id="hand-of" class="strong">Bench for the</span>
      <SelectButton
        v-model="hand" :options="[...HANDS]" option-label="name" option-value="id" :allow-empty="false"
        aria-labelledby="hand-of" />
    </div>
    <div class="unit">
      <span id="shakes-of" class="strong">Vibrates</span>
      <SelectButton
        v-model="vibrates" :options="[...SHAKES]" option-label="name" option-value="id" :allow-empty="false"
        aria-labelledby="shakes-of" />
    </div>
    <div class="unit">
      <span class="strong">Try it</span>
      <span class="tries">
        <PlainButton label="Try the voice" small @click="trySpeech" />
        <PlainButton label="Try the tone" small @click="tryTone" />
        <PlainButton label="Try the vibration" small @click="tryShake" />
      </span>
    </div>
    <p class="small" role="status">{{ said }}</p>
  </section>
</template>

<style scoped>
.unit { display: flex; flex-wrap: wrap; gap: 6px 16px; justify-content: space-between; align-items: center; padding: 9px 0; border-bottom: 1px solid var(--line); }
.tries { display: flex; flex-wrap: wrap; gap: 6px; }
</style>
