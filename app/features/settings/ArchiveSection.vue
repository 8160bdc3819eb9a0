<script setup lang="ts">
import Button from 'primevue/button'
import { ARCHIVE_BYTES } from '~contract/archive'
import type { RoomFacts } from '~contract/limits'
import { addressOf, ask } from '~/sync/api'
import { sendArchive } from '~/sync/archives'
import { useImports } from '~/sync/imports'
import ImportStatus from '~/features/imports/ImportStatus.vue'
import { bytesWords } from '~/ui/bytes'
import FileButton from '~/ui/FileButton.vue'
import { readJson } from '~/ui/files'
import { takeGuestFile } from '~/sync/guest-file'
import { useRecords } from '~/sync/records'
import { useLibrary } from '~/sync/library'
import { usePlans } from '~/sync/plans'
import { useSession } from '~/sync/session'

/** The whole workshop as one file, out and in. */
const room = ref<RoomFacts>()
onMounted(() => ask('GET room').then((told) => {
  room.value = told
}, () => {}))
const session = useSession(), library = useLibrary(), plans = usePlans(), records = useRecords()
const { latest, running, trouble: importTrouble, load, giveUp, takeOut } = useImports(['archive'], () =>
  void Promise.all([session.load(), library.load(), plans.load()]))
const sending = shallowRef<AbortController>(), sent = ref(0), trouble = ref('')
async function bringIn(file: File) {
  trouble.value = ''
  if (file.size > ARCHIVE_BYTES) {
    trouble.value = 'This file is larger than an archive that can be sent here (2 GB).'
    return
  }
  const stop = new AbortController()
  sending.value = stop
  sent.value = 0
  try {
    await sendArchive(file, stop.signal, share => sent.value = share)
    await load()
  }
  catch (error) {
    trouble.value = (error as Error).message
  }
  sending.value = undefined
}
const percent = computed(() => Math.floor(100 * sent.value))
/** A file that a guest saved on another device: it waits here as one's own, and is sent like all else. */
const cameIn = ref('')
async function bringGuest(file: File) {
  trouble.value = cameIn.value = ''
  try {
    const told = await takeGuestFile(readJson(await file.text()), session.key ?? '')
    if (!told) throw new Error('This is no file of a guest’s pour.')
    await records.load()
    const left = told.unread > 0 ? ` ${told.unread} entries in it could not be read and were left out.` : ''
    cameIn.value = `${told.pours === 1 ? 'One pour' : `${told.pours} pours`} came in.${left}`
  }
  catch (error) {
    trouble.value = (error as Error).message
  }
}
</script>

<template>
  <section aria-labelledby="archive-head">
    <div class="group-head">
      <h2 id="archive-head">The whole workshop</h2>
      <span class="small soft">Everything, as one file that can be read without this program.</span>
    </div>
    <p v-if="trouble || importTrouble" class="problem" role="alert">{{ trouble || importTrouble }}</p>
    <p v-if="room" class="soft">
      Photos take {{ bytesWords(room.photos.bytes) }} of the {{ bytesWords(room.photos.most) }} there is room for,
      models {{ bytesWords(room.models.bytes) }} of {{ bytesWords(room.models.most) }}.
    </p>
    <div class="ways">
      <a class="save" :href="addressOf('GET archive')" download>Save an archive</a>
      <FileButton
        label="Bring an archive in"
        accept=".zip,application/zip"
        :disabled="sending !== undefined || running.length > 0"
        @file="bringIn" />
      <FileButton label="Bring a guest’s pour in" accept=".json,application/json" @file="bringGuest" />
      <template v-if="sending">
        <span class="progress"
        ><span role="status">Sending it</span>{{ ' ' }}
          <span class="num">{{ percent }} %</span
          ><progress :value="percent" max="100" aria-label="Sent"
          /></span>
        <Button label="Give it up" severity="secondary" size="small" @click="sending.abort()" />
      </template>
    </div>
    <p v-if="cameIn" class="small" role="status">{{ cameIn }}</p>
    <ImportStatus v-if="latest" :job="latest" @give-up="giveUp(latest.id)" @take-out="takeOut(latest.id)" />
    <p class="small soft">
      An archive is only taken into an empty workshop, and is checked from end to end first. It holds no addresses,
      passwords or links: people sign in anew.
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
