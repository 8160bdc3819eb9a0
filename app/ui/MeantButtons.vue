<script setup lang="ts" generic="T">
/** What else something that was typed may mean, a button each. */
const { options, of } = defineProps<{
  options: readonly { readonly meant: T, readonly name: string }[]
  /** The field, for who does not see where they stand. */
  of: string
}>()
const emit = defineEmits<{ choose: [meant: T] }>()
</script>

<template>
  <div class="others">
    <!-- Pressed before the field is left, so that leaving it does not read it once more. -->
    <button
      v-for="o in options"
      :key="o.name"
      type="button"
      class="other num"
      :aria-label="`${of}: ${o.name} is meant`"
      @mousedown.prevent
      @click="emit('choose', o.meant)">
      {{ o.name }}
    </button>
  </div>
</template>

<style scoped>
.others { display: flex; flex-wrap: wrap; gap: 6px; justify-content: flex-end; }
.other {
  border: 1px solid var(--line-strong);
  border-radius: 999px;
  background: none;
  color: inherit;
  font-size: 0.85rem;
  padding: 2px 10px;
  min-height: 28px;
}
</style>
