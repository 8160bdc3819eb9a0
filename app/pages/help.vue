<script setup lang="ts">
import { makeSearch } from '~/features/help/search'
import { KEYS } from '~/features/help/words'

/** How things are done here, and what the trade's words mean. It is here without a network. */
definePageMeta({ plain: true })
const sought = ref(''), search = makeSearch()
const found = computed(() => search(sought.value))
const topics = computed(() => found.value.filter(e => e.id.startsWith('topic-')))
const terms = computed(() => found.value.filter(e => e.id.startsWith('term-')))
</script>

<template>
  <div class="help">
    <h1>Help</h1>
    <p class="seek">
      <label for="help-seek" class="strong">What are you looking for?</label>
      <input id="help-seek" v-model="sought" type="search" autocomplete="off" placeholder="soak, undercut, will not come out …">
    </p>
    <p class="sr-only" role="status">{{ found.length }} found</p>
    <p v-if="found.length === 0" class="soft">Nothing here has that word. Try another one for it.</p>
    <section v-if="topics.length > 0" aria-labelledby="how-head">
      <h2 id="how-head">How it is done</h2>
      <ul class="topics">
        <li v-for="t in topics" :key="t.id">
          <h3><NuxtLink v-if="t.to" :to="t.to">{{ t.title }}</NuxtLink><template v-else>{{ t.title }}</template></h3>
          <p>{{ t.text }}</p>
        </li>
      </ul>
    </section>
    <section v-if="terms.length > 0" aria-labelledby="words-head">
      <h2 id="words-head">Words of the trade</h2>
      <dl class="terms">
        <div v-for="t in terms" :id="t.id" :key="t.id">
          <dt class="strong">{{ t.title }}<span v-if="t.also" class="small soft"> {{ t.also }}</span></dt>
          <dd>{{ t.text }}</dd>
        </div>
      </dl>
    </section>
    <section v-if="sought === ''" aria-labelledby="help-keys">
      <h2 id="help-keys">Keys</h2>
      <dl class="keys">
        <template v-for="k in KEYS" :key="k.key"><dt><kbd>{{ k.key }}</kbd></dt><dd>{{ k.does }}, {{ k.where }}</dd></template>
      </dl>
    </section>
  </div>
</template>

<style scoped>
.help { display: grid; gap: 22px; }
.seek { display: grid; gap: 6px; max-width: 34rem; }
input { min-height: 48px; border: 2px solid var(--ink); border-radius: 12px; background: var(--sheet); padding: 6px 14px; }
h2 { margin-bottom: 10px; }
h3 { font-size: 1.05rem; font-weight: 700; margin: 0 0 2px; }
.topics { list-style: none; margin: 0; padding: 0; display: grid; grid-template-columns: repeat(auto-fill, minmax(280px, 1fr)); gap: 18px 28px; }
.terms { columns: 300px; column-gap: 32px; margin: 0; }
.terms > div { break-inside: avoid; padding-bottom: 12px; }
dd { margin: 0; }
.keys { display: grid; grid-template-columns: auto 1fr; gap: 6px 16px; margin: 0; }
kbd { font: inherit; font-family: var(--numbers); font-weight: 700; }
</style>
