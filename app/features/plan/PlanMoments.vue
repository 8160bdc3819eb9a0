<script setup lang="ts">
import { cautionWords } from '~core/plan/words'
import { castSection, castVolume } from '~core/plan/coats'
import { endUse } from '~core/gypsum/end-use'
import { needsScale } from '~core/gypsum/schools'
import { formatDuration, formatDurationRange, formatFine, formatTemperature } from '~core/units/format'
import { usePlanning } from '~/features/plan/planning'
import { useSession } from '~/sync/session'
import { expectedDrying } from '~core/drying/expected'

/** What to expect, counted from the moment powder meets water. Centre values at once, ranges a moment later. */
const planning = usePlanning(), session = useSession()
const batch = computed(() => planning.result.batches[0])
const use = computed(() => endUse(planning.plan.endUse))
interface Line {
  readonly when: string
  readonly what: string
  readonly tone: string
  readonly strong?: boolean
  readonly basis?: string
}

const lines = computed<Line[]>(() => {
  const b = batch.value, c = planning.centre, m = planning.moments
  if (!b || !c) return []
  const { school } = planning.plan
  const at = (seconds: number) => formatDuration(Math.round(seconds / 10) * 10)
  const list: Line[] = []
  if (school === 'bag') list.push({ when: '0 s', what: 'water in, knead', tone: 'water' })
  else {
    list.push({
      when: '0 s',
      what: needsScale(school) && school === 'dumped' ? 'powder in at once' : 'sift in, still water',
      tone: 'powder',
    })
    list.push({ when: at(b.steps.sifted.value), what: 'soak, hands off', tone: 'ink' }, {
      when: at(b.steps.soaked.value),
      what: `stir ${formatDuration(planning.plan.stir.minutes * 60)}`,
      tone: 'ink',
    })
  }
  list.push({ when: at(b.steps.stirred.value), what: 'pour, then tap', tone: 'water' })
  const span = (e: { low: number, high: number } | undefined, value: number) =>
    e ? formatDurationRange(e.low, e.high) : at(value)
  list.push({ when: span(m?.pourBy, c.pourBy), what: 'too stiff to pour', tone: 'mix', basis: m?.pourBy.basis.note })
  const { bubble } = planning.outlook?.outcome ?? {}
  const cleared = bubble && Number.isFinite(bubble.high)
    ? `${formatFine(bubble.low, session.units).replace(/[^\d.]+$/, '')}–${formatFine(bubble.high, session.units)}`
    : formatFine(c.bubble, session.units)
  list.push({
    when: span(m?.tapUntil, c.tapUntil),
    what: `stop tapping: bubbles over ${cleared} are out`,
    tone: 'air',
    basis: m?.tapUntil?.basis.note,
  })
  list.push({ when: span(m?.glossGone, c.glossGone), what: 'gloss goes', tone: 'ink', basis: m?.glossGone.basis.note })
  const heat = m
    ? `${formatTemperature(m.warmestTemperature.low, session.units)} to ${
      formatTemperature(m.warmestTemperature.high, session.units)
    }`
    : formatTemperature(c.warmestTemperature, session.units)
  list.push({
    when: span(m?.warmest, c.warmest),
    what: `warmest, ${heat} inside`,
    tone: 'heat',
    basis: m?.warmest.basis.note,
  })
  list.push({
    when: m ? formatDurationRange(m.open.from, m.open.to) : 'a moment',
    what: 'open the moulds',
    tone: 'set',
    strong: true,
    basis: m?.open.basis.note,
  })
  if (use.value.dryAt !== undefined && planning.governing) {
    const drying = expectedDrying(
      b.mix,
      castVolume(planning.plan, planning.governing),
      castSection(planning.plan, planning.governing),
      use.value.dryAt,
      planning.plan.roomTemperature,
    )
    list.push({
      when: formatDurationRange(Math.round(drying.low / 3600) * 3600, Math.round(drying.high / 3600) * 3600),
      what: `after opening: ${use.value.dryWord}`,
      tone: 'ink',
      basis: drying.basis.note,
    })
  }
  return list
})
</script>

<template>
  <section aria-labelledby="moments-head">
    <h2 id="moments-head" class="eyebrow">What to expect, after powder meets water</h2>
    <dl v-if="lines.length > 0">
      <template v-for="l in lines" :key="l.what">
        <dt :class="['num', `tone-${l.tone}`]">{{ l.when }}</dt>
        <dd :class="{ strong: l.strong }" :title="l.basis">{{ l.what }}</dd>
      </template>
    </dl>
    <p v-else class="soft small">Choose what you fill and how; the moments follow from it.</p>
    <p v-if="planning.moments" class="small soft">
      Ranges hold eight pours of ten. From {{ planning.moments.glossGone.basis.note }}.
    </p>
    <ul class="cautions">
      <li v-for="c in planning.cautions" :key="cautionWords(c)">{{ cautionWords(c) }}</li>
    </ul>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 12px;
  align-content: start;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 9px 12px;
  align-items: baseline;
}
dt {
  text-align: right;
  font-weight: 650;
  white-space: nowrap;
  font-size: 0.88rem;
}
.tone-powder {
  color: var(--powder);
}
.tone-water {
  color: var(--water);
}
.tone-heat {
  color: var(--heat);
}
.tone-set {
  color: var(--set);
}
.tone-mix {
  color: var(--mix);
}
.tone-air {
  color: var(--air);
}
</style>
