<script setup lang="ts">
import type { ShareFacts } from '~contract/share'
import { ask } from '~/sync/api'
import { useSession } from '~/sync/session'
import QrPicture from '~/ui/QrPicture.vue'

/** How phones reach this server, and what they compare before they trust it. */
const session = useSession()
const share = ref<ShareFacts>()
await ask('GET share').then((told) => {
  share.value = told.share
}, () => {})
const pairs = computed(() => share.value?.fingerprint.split(':') ?? [])
const lines = computed(() => [0, 8, 16, 24].map(i => pairs.value.slice(i, i + 8).join(' ')))
</script>

<template>
  <section v-if="share || session.isOwner" aria-labelledby="share-head">
    <div class="group-head"><h2 id="share-head">Phones on this network</h2></div>
    <div v-if="share" class="share">
      <QrPicture :text="share.install" label="The address that a new phone opens first" />
      <div>
        <p>A phone that was never here scans this, or opens <a :href="share.install">{{ share.install }}</a>, and installs the workshop’s certificate once. It shows a fingerprint, which must be this one:</p>
        <p class="print"><template v-for="line in lines" :key="line">{{ line }}<br></template></p>
        <p>
          After that the workshop is at
          <template v-for="(a, i) in share.addresses" :key="a">{{ i > 0 ? ', or ' : ' ' }}<a :href="a">{{ a }}</a></template>.
        </p>
      </div>
    </div>
    <p v-else class="soft">
      Not shared: only this machine reaches the workshop. Start it with <code>bin/start --share</code>, and phones on the
      same network come in over https.
    </p>
  </section>
</template>

<style scoped>
.share { display: flex; flex-wrap: wrap; gap: 14px 20px; padding: 14px 0; }
.share > div { flex: 1 1 300px; display: grid; gap: 10px; align-content: start; }
.print { font-family: var(--numbers); font-weight: 600; overflow-wrap: anywhere; border-left: 4px solid var(--line); padding-left: 12px; }
a { overflow-wrap: anywhere; }
</style>
