<script setup lang="ts">
import type { SetAside } from '~contract/versions'
import { ask } from '~/sync/api'

/** What this version cannot read. It is kept as it is and left out of its list; here it says so, and why. */
const WHAT: Readonly<Record<SetAside['what'], string>> = {
  plan: 'Plan', mould: 'Mould', bucket: 'Bucket', bag: 'Bag', order: 'Order', job: 'Job', page: 'Page', pour: 'Pour', view: 'View',
}
const WHY: Readonly<Record<SetAside['why'], string>> = {
  newer: 'was written by a newer version; bring this server up to date to read it.',
  broken: 'cannot be read: no version wrote it like this.',
}
const list = ref<readonly SetAside[]>([])
await ask('GET set-aside').then((found) => {
  list.value = found
}, () => {})
</script>

<template>
  <section v-if="list.length > 0" aria-labelledby="set-aside-head">
    <div class="group-head">
      <h2 id="set-aside-head">Set aside</h2>
      <span class="small soft">kept as it is, and left out of its list</span>
    </div>
    <ul class="ruled">
      <li v-for="s in list" :key="s.id">
        <span>{{ WHAT[s.what] }} <span class="strong">{{ s.name ?? 'without a name' }}</span> {{ WHY[s.why] }}</span>
      </li>
    </ul>
  </section>
</template>
