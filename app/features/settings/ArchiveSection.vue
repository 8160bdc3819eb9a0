<script setup lang="ts">
import Button from 'primevue/button'
import { ARCHIVE_BYTES, type Restored } from '~contract/archive'
import type { RoomFacts } from '~contract/limits'
import { addressOf, ask } from '~/sync/api'
import { bringArchive, type ArchiveProgress } from '~/sync/archives'
import { bytesWords } from '~/ui/bytes'
import FileButton from '~/ui/FileButton.vue'
import { useLibrary } from '~/sync/library'
import { usePlanning } from '~/features/plan/planning'
import { useSession } from '~/sync/session'

/** The whole workshop as one file, out and in. */
const room = ref<RoomFacts>()
onMounted(() => ask('GET room').then((told) => {
  room.value = told
}, () => {}))
const session = useSession(), library = useLibrary(), planning = usePlanning()
const reading = shallowRef<AbortController>(),
  trouble = ref(''),
  restored = ref<Restored>(),
  progress = ref<ArchiveProgress>({ doing: 'sending', share: 0 })
async function bringIn(file: File) {
  trouble.value = ''
  restored.value = undefined
  if (file.size > ARCHIVE_BYTES) {
    trouble.value = 'This file is larger than an archive that can be sent here (2 GB).'
    return
  }
  const giveUp = new AbortController()
  reading.value = giveUp
  progress.value = { doing: 'sending', share: 0 }
  try {
    restored.value = await bringArchive(file, giveUp.signal, now => progress.value = now)
    await Promise.all([session.load(), library.load(), planning.load()])
  }
  catch (error) {
    trouble.value = (error as Error).message
  }
  reading.value = undefined
}
const percent = computed(() => Math.floor(100 * progress.value.share))
const count = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`
</script>

<template>
  <section aria-labelledby="archive-head">
    <div class="group-head">
      <h2 id="archive-head">The whole workshop</h2>
      <span class="small soft">Everything, as one file that can be read without this program.</span>
    </div>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <p v-if="room" class="soft">
      Photos take {{ bytesWords(room.photos.bytes) }} of the {{ bytesWords(room.photos.most) }} there is room for,
      models {{ bytesWords(room.models.bytes) }} of {{ bytesWords(room.models.most) }}.
    </p>
    <p v-if="restored" role="status">
      Taken in: {{ count(restored.pours, 'pour', 'pours') }} with {{ count(restored.entries, 'entry', 'entries') }},
      {{ count(restored.moulds, 'mould', 'moulds') }}, {{ count(restored.plans, 'plan', 'plans') }},
      {{ count(restored.photos, 'photo', 'photos') }} and {{ count(restored.models, 'model', 'models') }}.
    </p>
    <div class="ways">
      <a class="save" :href="addressOf('GET archive')" download>Save an archive</a>
      <FileButton
        label="Bring an archive in"
        accept=".zip,application/zip"
        :disabled="reading !== undefined"
        @file="bringIn" />
      <template v-if="reading">
        <span class="progress"
        ><span role="status">{{
           progress.doing === 'sending' ? 'Sending it' : 'Reading it in. Years of pours take minutes'
         }}</span>{{ ' ' }}
          <span class="num">{{ percent }} %</span
          ><progress :value="percent" max="100" :aria-label="progress.doing === 'sending' ? 'Sent' : 'Read'"
          /></span>
        <Button label="Give it up" severity="secondary" size="small" @click="reading.abort()" />
      </template>
    </div>
    <p class="small soft">
      An archive is taken into an empty workshop only, whole or not at all. It holds no addresses, passwords or links:
      people sign in anew.
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
  padding-top: 4px;
}
.save {
  border: 1px solid var(--line-strong);
  background: var(--sheet);
  border-radius: 9px;
  padding: 0.62rem 1.05rem;
  font-weight: 650;
  color: var(--ink);
  text-decoration: none;
}
.progress {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
}
progress {
  width: 180px;
  accent-color: var(--action);
}
.save:hover {
  background: var(--action-soft);
}
</style>
