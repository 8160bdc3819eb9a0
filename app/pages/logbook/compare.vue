<script setup lang="ts">
import { format } from 'date-fns'
import { wordsOf } from '~core/logbook/tallies'
import type { PourAnswer } from '~contract/pour'
import { compared, comparison, lanes } from '~/features/logbook/compare'
import LogbookHead from '~/features/logbook/LogbookHead.vue'
import EmptyPicture from '~/ui/EmptyPicture.vue'
import DataChart from '~/ui/DataChart.vue'
import { remembered } from '~/sync/kept'
import { useSession } from '~/sync/session'

/** Two to six pours side by side: what was planned, what happened, what came of it. */
const WIDTH = 1000,
  LANE = 40,
  COLOURS = ['a', 'b', 'c', 'd'] as const,
  DASHES = [[], [8, 4], [2, 4], [10, 3, 2, 3], [4, 2], [1, 2]] as const
const session = useSession(), route = useRoute()
const ids = computed(() =>
  String(route.query.pours ?? '').split(',').filter(id => /^[0-9a-f-]{36}$/.test(id)).slice(0, 6),
)
const pours = shallowRef<readonly PourAnswer[]>([]), trouble = ref('')
async function load() {
  try {
    pours.value = (await Promise.all(
      ids.value.map(id => remembered(session.key ?? '', 'GET pours/:id', { params: { id } })),
    ))
      .map(a => a.value)
    trouble.value = ''
  }
  catch (error) {
    trouble.value = (error as Error).message
  }
}
await load()
watch(ids, load)
const all = computed(() => compared(pours.value)),
  blocks = computed(() => comparison(all.value, session.units)),
  drawn = computed(() => lanes(all.value, WIDTH, LANE))
const onlyDifferent = ref(true)
const shown = computed(() =>
  blocks.value.map(b => ({
    ...b,
    rows: onlyDifferent.value ? b.rows.filter(r => r.differs) : b.rows.filter(r => r.cells.some(c => c !== '—')),
  })).filter(b => b.rows.length > 0),
)
const colour = (i: number) => `var(--variant-${COLOURS[i % COLOURS.length]})`
/** Temperatures of first batches, where somebody held a thermometer. */
const heat = computed(() => {
  const read = all.value.map((c, i) => ({
    c,
    i,
    points: c.state.batches[0]!.temperatures.filter(t =>
      c.state.batches[0]!.wetAt !== undefined && t.at >= c.state.batches[0]!.wetAt!,
    ).map(t => ({ x: (t.at - c.state.batches[0]!.wetAt!) / 60_000, y: t.celsius })),
  })).filter(r => r.points.length > 0)
  if (read.length === 0) return undefined
  const ink = (i: number) =>
    getComputedStyle(document.documentElement).getPropertyValue(`--variant-${COLOURS[i % COLOURS.length]}`)
  return {
    label: 'Temperature of the first bucket after powder met water',
    head: ['pour', 'minutes', '°C'],
    rows: read.flatMap(r => r.points.map(p => [r.c.letter, Math.round(10 * p.x) / 10, Math.round(10 * p.y) / 10])),
    config: {
      type: 'line' as const,
      data: {
        datasets: read.map(r => ({
          label: r.c.letter,
          data: r.points,
          borderColor: ink(r.i),
          backgroundColor: ink(r.i),
          borderDash: [...DASHES[r.i]!],
          pointRadius: 3,
          borderWidth: 2,
        })),
      },
      options: {
        scales: {
          x: { type: 'linear' as const, title: { display: true, text: 'minutes' } },
          y: { title: { display: true, text: '°C' } },
        },
      },
    },
  }
})
const title = (c: { run: { plan: { name: string } } }) =>
  wordsOf(c.run.plan.name).length > 0 ? c.run.plan.name : 'A pour without a name'
</script>

<template>
  <div>
    <LogbookHead />
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <div v-if="all.length < 2" class="empty">
      <EmptyPicture :forms="['tile', 'box']" />
      <p>Tick two to six pours in the logbook, then compare them here.</p>
      <NuxtLink to="/logbook">To the pours</NuxtLink>
    </div>
    <template v-else>
      <figure
        class="sheet"
        tabindex="0"
        aria-label="The first bucket of each pour from the moment powder met water: bars are what was expected, discs what happened">
        <svg :viewBox="`-34 -6 ${WIDTH + 60} ${LANE * all.length + 34}`" role="presentation">
          <g v-for="t in drawn.ticks" :key="t.word">
            <line :x1="t.x" y1="0" :x2="t.x" :y2="LANE * all.length" stroke="var(--line)" />
            <text :x="t.x" :y="LANE * all.length + 20" text-anchor="middle" font-size="14" style="fill: var(--soft)">
              {{ t.word }}
            </text>
          </g>
          <text
            v-for="h in drawn.heads"
            :key="h.word"
            :x="h.x"
            y="8"
            text-anchor="middle"
            font-size="12"
            style="fill: var(--soft)">
            {{ h.word }}
          </text>
          <g v-for="(lane, i) in drawn.lanes" :key="lane.letter">
            <text
              x="-22"
              :y="lane.y + 6"
              text-anchor="middle"
              font-size="19"
              font-weight="700"
              :style="{ fill: colour(i) }">
              {{ lane.letter }}
            </text>
            <line x1="0" :y1="lane.y" :x2="WIDTH" :y2="lane.y" stroke="var(--line-strong)" stroke-width="0.7" />
            <text v-if="lane.marks.length === 0" x="8" :y="lane.y - 4" font-size="12" style="fill: var(--soft)">
              from a table: only its day is known
            </text>
            <g v-for="m in lane.marks" :key="m.id">
              <title>{{ lane.letter }}, {{ m.words }}</title>
              <rect
                :x="m.from"
                :y="lane.y - 7"
                :width="Math.max(2, m.to - m.from)"
                height="14"
                rx="3"
                :fill="
                  m.id === 'open'
                    ? 'var(--set-soft)'
                    : m.id === 'warm'
                      ? 'var(--heat-soft)'
                      : m.id === 'dry'
                        ? 'var(--powder-soft)'
                        : 'var(--mix-soft)'
                "
                stroke="var(--line-strong)"
                stroke-width="0.6" />
            </g>
            <template v-for="m in lane.marks" :key="`${m.id}-was`">
              <circle
                v-if="m.at !== undefined"
                :cx="m.at"
                :cy="lane.y"
                r="6"
                :fill="m.at < m.from || m.at > m.to ? 'var(--heat)' : 'var(--ink)'">
                <title>{{ lane.letter }}, {{ m.words }}</title>
              </circle>
            </template>
          </g>
        </svg>
        <figcaption class="small soft">
          First bucket. Bars: expected when the pour began. Discs: what happened, red where it fell outside.
        </figcaption>
      </figure>
      <div class="scroll" tabindex="0" role="region" aria-label="The pours side by side">
        <table>
          <thead>
            <tr>
              <td>
                <label class="small"><input v-model="onlyDifferent" type="checkbox" /> only what differs</label>
              </td>
              <th v-for="(c, i) in all" :key="c.id" scope="col">
                <span class="letter" :style="{ color: colour(i) }">{{ c.letter }}</span>{{ ' ' }}
                <NuxtLink :to="`/pour/${c.id}`">{{ title(c) }}</NuxtLink><br /><span class="small soft">{{
                  c.state.startedAt ? format(c.state.startedAt, 'd MMM yyyy') : 'not begun'
                }}</span>
              </th>
            </tr>
          </thead>
          <tbody v-for="b in shown" :key="b.word">
            <tr class="block"><th :colspan="all.length + 1" scope="rowgroup">{{ b.word }}</th></tr>
            <tr v-for="r in b.rows" :key="r.word">
              <th scope="row">{{ r.word }}</th>
              <td v-for="(cell, i) in r.cells" :key="i" :class="{ differs: r.differs && !onlyDifferent }">
                {{ cell }}
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="shown.length === 0" class="soft">Nothing that was recorded differs between them.</p>
      <section v-if="heat" class="sheet heat" aria-labelledby="heat-head">
        <h2 id="heat-head">How warm the first bucket got</h2>
        <DataChart v-bind="heat" />
      </section>
    </template>
  </div>
</template>

<style scoped>
figure.sheet {
  padding: 12px 14px;
  margin-bottom: 16px;
}
figure.sheet {
  overflow-x: auto;
}
svg {
  width: 100%;
  min-width: 640px;
  height: auto;
  display: block;
}
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  text-align: left;
  padding: 7px 18px 7px 0;
  border-bottom: 1px solid var(--line);
  font-weight: 400;
  vertical-align: top;
}
thead th {
  font-weight: 600;
  min-width: 150px;
  border-bottom: 2px solid var(--ink);
}
thead td {
  border-bottom: 2px solid var(--ink);
  white-space: nowrap;
}
tbody th[scope='row'] {
  color: var(--soft);
  white-space: nowrap;
}
.block th {
  font-weight: 680;
  padding-top: 14px;
}
.letter {
  font-weight: 750;
  font-size: 1.15rem;
}
.differs {
  font-weight: 650;
}
.heat {
  padding: 14px 18px;
  margin-top: 16px;
}
</style>
