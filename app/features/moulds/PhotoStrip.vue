<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import InputText from 'primevue/inputtext'
import type { KeptPhoto } from '~contract/photo'
import { newId, Refused } from '~/sync/api'
import { dropPhoto, keepPhoto, photoAddress, photosOf, shrunk } from '~/sync/photos'
import FileButton from '~/ui/FileButton.vue'
import { useSession } from '~/sync/session'

/** Photos of one mould: looked at, added with a caption, taken away. */
const { mould, name } = defineProps<{ mould: string, name: string }>()
const session = useSession()
const photos = ref<KeptPhoto[]>([])
const caption = ref('')
const busy = ref(false), trouble = ref('')
const large = ref<KeptPhoto>()
async function attempt(work: () => Promise<unknown>) {
  busy.value = true
  trouble.value = ''
  try {
    await work()
    photos.value = await photosOf({ mould })
  }
  catch (error) {
    trouble.value = error instanceof Refused ? error.sentence : 'The photos could not be reached.'
  }
  busy.value = false
}
await attempt(async () => {})
async function add(file: File) {
  await attempt(async () => keepPhoto(newId(), { mould }, await shrunk(file), caption.value))
  if (!trouble.value) caption.value = ''
}
const drop = (photo: KeptPhoto) => {
  large.value = undefined
  return attempt(() => dropPhoto(photo))
}
const says = (p: KeptPhoto, i: number) => p.caption || `Photo ${i + 1} of ${name}`
</script>

<template>
  <section aria-labelledby="photos-head" class="column">
    <h2 id="photos-head" class="eyebrow">Photos</h2>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <ul v-if="photos.length > 0" class="photos">
      <li v-for="(p, i) in photos" :key="p.id">
        <button :aria-label="`Larger: ${says(p, i)}`" @click="large = p">
          <img :src="photoAddress(p.id)" :alt="says(p, i)" loading="lazy" />
        </button>
      </li>
    </ul>
    <p v-else class="small soft">
      None yet. A seam, a tear-stop or a release that worked is sooner found again in a picture.
    </p>
    <div v-if="session.mayWrite" class="add">
      <InputText
        v-model="caption"
        maxlength="200"
        placeholder="What it shows"
        aria-label="What the next photo shows"
        fluid />
      <FileButton
        small
        :label="busy ? 'One moment …' : 'Add a photo'"
        accept="image/jpeg,image/png,image/webp"
        :disabled="busy"
        @file="add" />
    </div>
    <Dialog
      :visible="!!large"
      modal
      :header="large?.caption || name"
      :style="{ width: 'min(94vw, 60rem)' }"
      @update:visible="large = undefined">
      <template v-if="large">
        <img :src="photoAddress(large.id)" :alt="large.caption || name" class="large" />
        <Button
          v-if="session.mayWrite"
          label="Take this photo away"
          severity="secondary"
          size="small"
          @click="drop(large)" />
      </template>
    </Dialog>
  </section>
</template>

<style scoped>
.column {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
}
.photos {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(84px, 1fr));
  gap: 6px;
}
.photos button {
  border: 0;
  padding: 0;
  background: none;
  width: 100%;
  aspect-ratio: 1;
  border-radius: 8px;
  overflow: hidden;
}
.photos img {
  width: 100%;
  height: 100%;
  object-fit: cover;
  display: block;
}
.large {
  width: 100%;
  max-height: 72vh;
  object-fit: contain;
  display: block;
  margin-bottom: 10px;
}
.add {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px;
  align-items: center;
}
</style>
