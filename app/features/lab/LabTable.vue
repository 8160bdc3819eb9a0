<script setup lang="ts">
import { factName, factNote } from '~core/lab/words'
import { useLab } from '~/features/lab/lab'
import { useSession } from '~/sync/session'
import { differs, showFact, VARIANTS } from './showing'

/** The facts of every variant side by side; what differs from A stands out. */
const lab = useLab(), session = useSession()
/** The row whose rule is shown. */
const open = ref('')
const first = computed(() => lab.facts[0])
const rows = computed(() =>
  (lab.facts.find(f => f !== undefined) ?? []).map((fact, i) => ({
    fact,
    cells: lab.facts.map((facts, v) =>
      facts
      && {
        ...showFact(facts[i]!, session.units),
        changed: v > 0 && differs(first.value?.[i], facts[i]!, session.units),
      },
    ),
  })),
)
function toggle(id: string) {
  open.value = open.value === id ? '' : id
}
</script>

<template>
  <div class="scroll" tabindex="0" role="region" aria-label="The variants in numbers">
    <table>
      <thead>
        <tr>
          <th scope="col" class="what">Centre, and eight pours in ten</th>
          <th v-for="(_, i) in lab.mixes" :key="i" scope="col">
            <span :style="{ color: VARIANTS[i]!.colour }">{{ VARIANTS[i]!.letter }}</span>
          </th>
        </tr>
      </thead>
      <tbody>
        <template v-for="r in rows" :key="r.fact.id">
          <tr>
            <th scope="row">
              <button :aria-expanded="open === r.fact.id" @click="toggle(r.fact.id)">
                {{ factName(r.fact, session.units) }}
              </button>
            </th>
            <td v-for="(c, i) in r.cells" :key="i" :class="{ changed: c?.changed }">
              <template v-if="c"
              ><span class="num value">{{ c.value }}</span> <span class="num range">{{ c.range }}</span></template
              >
              <template v-else>—</template>
            </td>
          </tr>
          <tr v-if="open === r.fact.id"><td :colspan="lab.mixes.length + 1" class="note">{{ factNote(r.fact, session.units) }}</td></tr>
        </template>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 0.9rem;
}
th,
td {
  text-align: left;
  padding: 5px 10px 5px 0;
  border-bottom: 1px solid var(--line);
  vertical-align: baseline;
}
thead th {
  border-bottom: 2px solid var(--ink);
  font-weight: 700;
}
tbody th {
  font-weight: 500;
  white-space: nowrap;
}
.what {
  font-weight: 600;
  color: var(--soft);
  font-size: 0.87rem;
}
td {
  white-space: nowrap;
}
th button {
  border: 0;
  background: none;
  padding: 2px 0;
  min-height: 24px;
  text-align: left;
  font-weight: 500;
  text-decoration: underline dotted var(--line-strong);
  text-underline-offset: 4px;
}
.note {
  white-space: normal;
  color: var(--soft);
  font-size: 0.87rem;
  max-width: 60ch;
}
.value {
  display: inline-block;
  min-width: 7em;
  margin-right: 6px;
}
.changed .value {
  font-weight: 750;
}
.range {
  color: var(--soft);
  font-size: 0.82rem;
}
</style>
