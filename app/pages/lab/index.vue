<script setup lang="ts">
import Select from 'primevue/select'
import { OFFERED_CLASSES, type PowderClassId } from '~core/gypsum/powders'
import { workOutPlan } from '~core/plan/plan'
import { mixOfPlan, usualMix } from '~core/lab/mix'
import { labRefusalWords, labRemarkWords, mixLine } from '~core/lab/words'
import LabCurves from '~/features/lab/LabCurves.vue'
import LabHead from '~/features/lab/LabHead.vue'
import LabLevers from '~/features/lab/LabLevers.vue'
import LabTable from '~/features/lab/LabTable.vue'
import { VARIANTS } from '~/features/lab/showing'
import { MOST_VARIANTS, useLab } from '~/features/lab/lab'
import { useLibrary } from '~/sync/library'
import { useWorlds } from '~/sync/worlds'
import { usePlans } from '~/sync/plans'
import { useSession } from '~/sync/session'

const lab = useLab(), library = useLibrary(), worldOf = useWorlds(), plans = usePlans(), session = useSession()
await Promise.all([library.loaded ? undefined : library.load(), plans.load()])

const bases = computed(() => [
  ...(plans.saved.length > 0
    ? [{
        label: 'A plan of yours',
        items: plans.saved.map(p => ({ value: `plan:${p.id}`, name: p.plan.name || 'Plan without a name' })),
      }]
    : []),
  {
    label: 'The recommended mix of a class',
    items: OFFERED_CLASSES.map(p => ({ value: `class:${p.id}`, name: p.name })),
  },
])
function startFrom(value: string | null) {
  if (!value) return
  const [kind, id = ''] = value.split(':')
  const saved = plans.saved.find(p => p.id === id)
  if (kind === 'plan' && saved)
    lab.startFrom(mixOfPlan(saved.plan, workOutPlan(saved.plan, worldOf(saved.plan))))
  else lab.startFrom(usualMix(id as PowderClassId))
}
</script>

<template>
  <div>
    <LabHead>
      <Select
        :key="lab.mixes.length"
        class="base"
        :model-value="null"
        :options="bases"
        option-label="name"
        option-value="value"
        option-group-label="label"
        option-group-children="items"
        placeholder="Start again from …"
        aria-label="Start again from a plan or a class of powder"
        @update:model-value="startFrom"
      />
    </LabHead>
    <div class="two">
      <div class="left">
        <ul class="variants" aria-label="Variants">
          <li v-for="(m, i) in lab.mixes" :key="i" :class="{ here: i === lab.chosen }">
            <button class="pick" :aria-pressed="i === lab.chosen" @click="lab.chosen = i">
              <span class="letter" :style="{ color: VARIANTS[i]!.colour }">{{ VARIANTS[i]!.letter }}</span>
              <svg width="30" height="8" aria-hidden="true">
                <line
                  x1="0"
                  x2="30"
                  y1="4"
                  y2="4"
                  :stroke="VARIANTS[i]!.colour"
                  stroke-width="3"
                  :stroke-dasharray="VARIANTS[i]!.dash" />
              </svg>
              <span class="small">{{ mixLine(m, session.units) }}</span>
            </button>
            <button
              v-if="lab.mixes.length > 1"
              class="drop"
              :aria-label="`Take away ${VARIANTS[i]!.letter}`"
              @click="lab.remove(i)">
              ×
            </button>
          </li>
        </ul>
        <button v-if="lab.mixes.length < MOST_VARIANTS" class="add" @click="lab.add()">
          Copy {{ VARIANTS[lab.chosen]!.letter }} and change it
        </button>
        <h2 class="eyebrow">Move {{ VARIANTS[lab.chosen]!.letter }}</h2>
        <LabLevers />
      </div>
      <div class="right">
        <div v-if="lab.current.remarks.refusal" class="sheet cannot" role="status">
          <h2>{{ VARIANTS[lab.chosen]!.letter }} cannot be worked out</h2>
          <p>{{ labRefusalWords(lab.current.remarks.refusal) }}</p>
        </div>
        <section v-if="lab.changes.some(Boolean)" aria-label="What changed against A" class="changes" role="status">
          <template v-for="(c, i) in lab.changes" :key="i">
            <p v-if="c">
              <span class="letter" :style="{ color: VARIANTS[i]!.colour }">{{ VARIANTS[i]!.letter }}</span> {{ c }}
            </p>
          </template>
        </section>
        <LabCurves class="curves" />
        <ul v-if="lab.current.remarks.remarks.length > 0" class="remarks small">
          <li v-for="(r, i) in lab.current.remarks.remarks" :key="i">
            {{ VARIANTS[lab.chosen]!.letter }}: {{ labRemarkWords(r, session.units) }}
          </li>
        </ul>
        <LabTable />
        <p class="small soft">
          Centre, and the range that holds eight pours of ten over what is not known: the bag, the stirring, the scale,
          the room, the late tail of the set, and the misfit of each law. Press a row’s name for its rule; every
          equation, source and miss is in <NuxtLink to="/lab/model">how it is worked out</NuxtLink>.
        </p>
      </div>
    </div>
  </div>
</template>

<style scoped>
.base {
  margin-left: auto;
  width: 230px;
}
.two {
  display: grid;
  grid-template-columns: 308px minmax(0, 1fr);
  gap: 26px;
  align-items: start;
}
.left,
.right {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
  align-content: start;
}
.variants {
  display: grid;
  gap: 4px;
}
.variants li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  border: 1.5px solid var(--line);
  border-radius: 10px;
  background: var(--sheet);
}
.variants li.here {
  border-color: var(--ink);
}
.pick {
  display: grid;
  grid-template-columns: auto 30px minmax(0, 1fr);
  gap: 9px;
  align-items: center;
  text-align: left;
  border: 0;
  background: none;
  padding: 7px 4px 7px 11px;
  min-height: 42px;
}
.letter {
  font-weight: 760;
}
.drop {
  border: 0;
  background: none;
  min-width: 36px;
  font-size: 1.1rem;
  color: var(--soft);
}
.add {
  border: 1.5px dashed var(--line-strong);
  border-radius: 10px;
  background: none;
  min-height: 38px;
  font-weight: 600;
  font-size: 0.9rem;
  color: var(--action);
}
.cannot {
  padding: 14px 18px;
  border-left: 4px solid var(--warn);
  display: grid;
  gap: 4px;
}
.changes {
  display: grid;
  gap: 5px;
  font-size: 1.02rem;
}
.remarks {
  color: var(--warn);
  display: grid;
  gap: 3px;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
  .base {
    margin-left: 0;
  }
  .right {
    display: contents;
  }
  .changes,
  .curves,
  .cannot {
    order: -2;
  }
  .left {
    order: -1;
  }
}
</style>
