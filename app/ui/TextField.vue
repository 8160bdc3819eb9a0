<script setup lang="ts">
import InputText from 'primevue/inputtext'

/** A line of text with its name above and, where something is wrong with it, what to do below. */
const { id, label, type = 'text', autocomplete = 'off', wrong } = defineProps<
  { id: string, label: string, type?: 'text' | 'email' | 'password', autocomplete?: string, wrong?: string }
>()
const text = defineModel<string>({ required: true })
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <InputText
      :id="id"
      v-model="text"
      :type="type"
      :autocomplete="autocomplete"
      :invalid="wrong !== undefined"
      :aria-describedby="wrong === undefined ? undefined : `${id}-wrong`"
    />
    <p v-if="wrong" :id="`${id}-wrong`" class="problem">{{ wrong }}</p>
  </div>
</template>
