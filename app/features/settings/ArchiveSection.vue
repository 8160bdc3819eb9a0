<script setup lang="ts">
import Button from 'primevue/button'
import { ARCHIVE_BYTES, type Restored } from '~shared/archive'
import FileButton from '~/ui/FileButton.vue'
import { useLibrary } from '~/stores/library'
import { usePlanning } from '~/stores/planning'
import { useSession } from '~/stores/session'

/** The whole workshop as one file, out and in. */
const session = useSession(), library = useLibrary(), planning = usePlanning()
const reading = shallowRef<AbortController>(), trouble = ref(''), restored = ref<Restored>()
async function bringIn(file: File) {
  trouble.value = ''
  restored.value = undefined
  if (file.size > ARCHIVE_BYTES) {
    trouble.value = 'This file is larger than an archive that can be sent here (2 GB).'
    return
  }
  reading.value = new AbortController()
  try {
    const answer = await fetch('/api/archive', { method: 'POST', headers: { 'content-type': 'application/zip' }, body: file, signal: reading.value.signal })
    const read = await answer.json().catch(() => ({})) as Restored & { data?: { sentence?: string } }
    if (answer.ok) {
      restored.value = read
      await Promise.all([session.load(), library.load(), planning.load()])
    }
    else trouble.value = read.data?.sentence ?? 'The server could not read this file. Nothing was taken in.'
  }
  catch (error) {
    trouble.value = (error as Error).name === 'AbortError' ? 'Given up; nothing was taken in.' : 'The connection broke while it was sent. Nothing was taken in; try it again.'
  }
  reading.value = undefined
}
const count = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`
</script>

<template>
  <section aria-labelledby="archive-head">
    <div class="group-head"><h2 id="archive-head">The whole workshop</h2><span class="small soft">Everything, as one file that can be read without this program.</span></div>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <p v-if="restored" role="status">
      Taken in: {{ count(restored.pours, 'pour', 'pours') }} with {{ count(restored.entries, 'entry', 'entries') }}, {{ count(restored.moulds, 'mould', 'moulds') }}, {{ count(restored.plans, 'plan', 'plans') }}, {{ count(restored.photos, 'photo', 'photos') }} and {{ count(restored.models, 'model', 'models') }}.
    </p>
    <div class="ways">
      <a class="save" href="/api/archive" download>Save an archive</a>
      <FileButton label="Bring an archive in" accept=".zip,application/zip" :disabled="reading !== undefined" @file="bringIn" />
      <template v-if="reading">
        <span role="status">Reading it in. Years of pours take minutes.</span>
        <Button label="Give it up" severity="secondary" size="small" @click="reading.abort()" />
      </template>
    </div>
    <p class="small soft">An archive is taken into an empty workshop only, whole or not at all. It holds no addresses, passwords or links: people sign in anew.</p>
  </section>
</template>

<style scoped>
section { display: grid; gap: 8px; }
.ways { display: flex; flex-wrap: wrap; gap: 12px; align-items: center; padding-top: 4px; }
.save { border: 1px solid var(--line-strong); background: var(--sheet); border-radius: 9px; padding: 0.62rem 1.05rem; font-weight: 650; color: var(--ink); text-decoration: none; }
.save:hover { background: var(--action-soft); }
</style>
