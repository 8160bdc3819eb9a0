<script setup lang="ts">
import type { AuditRow } from '~contract/account'
import { ask } from '~/sync/api'
import PlainButton from '~/ui/PlainButton.vue'
import { recordTime } from '~/ui/when'
import { auditWords } from './words'

/** Who signed in, and what was changed about people: for owners to look through. */
const FIRST = 8
const rows = ref<readonly AuditRow[]>([]), all = ref(false)
await ask('GET audit').then((told) => {
  rows.value = told
}, () => {})
const shown = computed(() => all.value ? rows.value : rows.value.slice(0, FIRST))
const showAll = () => {
  all.value = true
}
</script>

<template>
  <section aria-labelledby="audit-head">
    <div class="group-head">
      <h2 id="audit-head">Comings and goings</h2>
      <span class="small soft">who signed in, and what was changed about people</span>
    </div>
    <ol class="ruled">
      <li v-for="r in shown" :key="r.id">
        <span class="small soft">{{ recordTime(r.at, Date.now()) }}</span>
        <span>{{ auditWords(r) }}<span v-if="r.place" class="small soft">{{ ' ' }}from {{ r.place }}</span></span>
      </li>
    </ol>
    <PlainButton v-if="rows.length > shown.length" :label="`Show all ${rows.length}`" class="more" @click="showAll" />
  </section>
</template>

<style scoped>
ol { list-style: none; padding: 0; margin: 0; }
li { display: grid; grid-template-columns: 104px minmax(0, 1fr); gap: 14px; padding: 7px 0; align-items: baseline; }
.more { margin-top: 10px; }
</style>
