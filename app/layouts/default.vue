<script setup lang="ts">
import HouseGlyph from '~/ui/HouseGlyph.vue'
import type { GlyphId } from '~/ui/glyphs'
import RippleMark from '~/ui/RippleMark.vue'
import AlarmBar from '~/ui/AlarmBar.vue'
import ClockBar from '~/ui/ClockBar.vue'
import { timeOfDay } from '~/ui/when'
import { countWords, nameWords, notTakenWords, waitWords } from '~/features/waiting/words'
import { useAlarms } from '~/sync/alarms'
import { useChanges } from '~/sync/changes'
import { useClock } from '~/sync/clock'
import { useLive } from '~/sync/live'
import { useRecords } from '~/sync/records'
import { useSession } from '~/sync/session'

const places: readonly { to: string, word: string, glyph: GlyphId, phone: boolean }[] = [
  { to: '/', word: 'Today', glyph: 'today', phone: true },
  { to: '/plan', word: 'Plan', glyph: 'plan', phone: true },
  { to: '/bench', word: 'Bench', glyph: 'bench', phone: true },
  { to: '/shelf', word: 'Shelf', glyph: 'shelf', phone: true },
  { to: '/logbook', word: 'Logbook', glyph: 'logbook', phone: true },
  { to: '/moulds', word: 'Moulds', glyph: 'moulds', phone: false },
  { to: '/powders', word: 'Powders', glyph: 'powders', phone: false },
  { to: '/practice', word: 'Practice', glyph: 'stir', phone: false },
  { to: '/lab', word: 'Lab', glyph: 'lab', phone: false },
  { to: '/settings', word: 'Workshop', glyph: 'workshop', phone: false },
  { to: '/help', word: 'Help', glyph: 'help', phone: false },
]
const live = useLive(), records = useRecords(), changes = useChanges(), clock = useClock(), session = useSession()
/** What a guest can open. */
const GUEST_PLACES = new Set(['/', '/plan', '/bench', '/shelf', '/practice', '/lab', '/help'])
const shownPlaces = computed(() => session.isGuest ? places.filter(p => GUEST_PLACES.has(p.to)) : places)
const route = useRoute()
/** Pages that stand elsewhere and belong to a place. */
const OF_PLACE: Readonly<Record<string, RegExp>> = { '/logbook': /^\/(pour|piece)\//, '/plan': /^\/(orders|jobs)(\/|$)/, '/practice': /^\/(classes|practise)(\/|$)/ }
const isHere = (to: string) =>
  to === '/'
    ? route.path === '/'
    : route.path.startsWith(to) || OF_PLACE[to]?.test(route.path)
/** Why nothing is sent just now. */
const HALTED = {
  'away': 'No connection to the workshop’s server.',
  'signed-out': 'You are signed out: sign in, and what waits is sent.',
  'not-allowed': 'You may look at this workshop, but no longer change it.',
} as const
const unsent = computed(() => records.unsent + changes.unsent.length)
const waits = computed(() => waitWords(records.unsent, changes.unsent.length))
/** The first of what was not taken stands for all. */
const refused = computed(() => {
  const [pour] = records.refusedPours, [entry] = records.refused, [change] = changes.refused
  if (pour) return { words: 'A pour that was begun here was not taken.', why: pour.refused }
  if (entry ?? change?.refused) return {
    words: notTakenWords(records.refused.length, changes.refused.length),
    why: entry?.refused ?? change?.refused,
  }
  return change && { words: `“${nameWords(change)}” was changed elsewhere too.`, why: 'Say which version stands.' }
})
/** What waits stays here, and is sent when they are back. */
async function signIn() {
  await session.load()
  await navigateTo({ path: '/sign-in', query: { to: route.fullPath } })
}
onMounted(() => useAlarms().start())
/** Only ever by hand: nobody's pour is taken from under them. */
const openNewer = () => location.reload()
const more = ref(false)
watch(() => route.path, () => {
  more.value = false
})
</script>

<template>
  <div class="frame">
    <a class="skip" href="#main">Skip to the page</a>
    <nav class="rail" aria-label="Main">
      <RippleMark class="mark" />
      <NuxtLink
        v-for="p in shownPlaces"
        :key="p.to"
        v-memo="[isHere(p.to), more]"
        :to="p.to"
        :class="{ here: isHere(p.to), tucked: !p.phone, shown: more }"
        :aria-current="isHere(p.to) ? 'page' : undefined"
      >
        <HouseGlyph :id="p.glyph" :size="26" />
        <span>{{ p.word }}</span>
      </NuxtLink>
      <button class="more" :aria-expanded="more" @click="more = !more">
        <HouseGlyph id="more" :size="26" /><span>More</span>
      </button>
    </nav>
    <div class="page">
      <ClockBar />
      <main id="main" tabindex="-1"><slot /></main>
      <!-- Below the page: what comes up here moves nothing that a hand is on. -->
      <div class="notices">
        <div v-if="session.isGuest" class="line-state guest" role="status">
          Kept on this device only. <NuxtLink to="/keep">Keep this</NuxtLink>
        </div>
        <div v-else-if="!live.connected || unsent > 0" class="line-state" role="status">
          <template v-if="!live.connected">
            {{ records.trouble || HALTED[live.signedOut ? 'signed-out' : records.halted ?? 'away'] }}
            <a v-if="live.signedOut || records.halted === 'signed-out'" href="/sign-in" @click.prevent="signIn">Sign in</a>
            Last heard {{ timeOfDay(clock.at(live.heardAt)) }}.
            {{
              unsent > 0
                ? `${waits} here and will be sent.`
                : 'What you change is kept here and sent later; people, links and models wait until it is back.'
            }}
          </template>
          <template v-else-if="records.halted">
            {{ HALTED[records.halted] }}
            <a v-if="records.halted === 'signed-out'" href="/sign-in" @click.prevent="signIn">Sign in</a>
            {{ waits }} on this device.
          </template>
          <template v-else-if="records.trouble">{{ records.trouble }}</template>
          <template v-else>Sending {{ countWords(records.unsent, changes.unsent.length) }} …</template>
        </div>
        <div v-if="live.newer" class="line-state" role="status">
          A newer version of Nine Ripples is here. <a :href="route.fullPath" @click.prevent="openNewer">Open it</a> when
          nothing is in your hands; what waits here stays.
        </div>
        <div v-if="refused" class="line-state bad" role="alert">
          {{ refused.words }} {{ refused.why }} <NuxtLink to="/not-taken">See what and why</NuxtLink>
        </div>
        <AlarmBar />
      </div>
    </div>
  </div>
</template>

<style scoped>
.frame {
  display: grid;
  grid-template-columns: 84px minmax(0, 1fr);
  min-height: 100dvh;
}
.rail {
  background: var(--rail);
  color: var(--rail-ink);
  display: flex;
  flex-direction: column;
  gap: 4px;
  padding: 16px 4px;
  position: sticky;
  top: 0;
  height: 100dvh;
  overflow-y: auto;
}
.mark {
  width: 40px;
  height: 40px;
  margin: 0 auto 10px 18px;
}
.rail a,
.more {
  color: inherit;
  text-decoration: none;
  display: grid;
  justify-items: center;
  gap: 4px;
  padding: 9px 2px 7px;
  border-radius: 9px;
  font-size: 0.8rem;
  background: none;
  border: 0;
}
.rail a:hover {
  background: var(--rail-over);
}
.rail a.here {
  background: var(--rail-here);
  color: #23292e;
  font-weight: 650;
}
.rail :focus-visible {
  outline-color: var(--rail-here);
}
.more {
  display: none;
}
.page {
  min-width: 0;
  display: flex;
  flex-direction: column;
}
.notices {
  position: sticky;
  bottom: 0;
  z-index: 10;
  max-height: 40dvh;
  overflow-y: auto;
}
main {
  flex: 1;
  padding: 22px 24px 40px;
  outline: none;
  max-width: 1320px;
}
.line-state {
  background: var(--warn-soft);
  color: var(--ink);
  padding: 7px 24px;
  font-size: 0.9rem;
}
.line-state.bad {
  background: var(--heat-soft);
  color: var(--ink);
}
@media (max-width: 720px) {
  .frame {
    grid-template-columns: minmax(0, 1fr);
    padding-bottom: 68px;
  }
  .rail {
    position: fixed;
    inset: auto 0 0 0;
    top: auto;
    z-index: 20;
    height: auto;
    flex-flow: row wrap;
    justify-content: space-around;
    padding: 4px 4px max(4px, env(safe-area-inset-bottom));
  }
  .notices {
    bottom: calc(62px + env(safe-area-inset-bottom));
  }
  .mark {
    display: none;
  }
  .rail a,
  .more {
    flex: 1 0 15%;
    padding: 7px 0 5px;
    font-size: 0.76rem;
  }
  .rail a.tucked {
    display: none;
  }
  .rail a.tucked.shown {
    display: grid;
    order: -1;
    flex-basis: 30%;
  }
  .more {
    display: grid;
  }
  main {
    padding: 16px 16px 32px;
  }
}
@media print {
  .rail,
  .clock-bar,
  .notices {
    display: none;
  }
  .frame {
    display: block;
  }
}
</style>
