<script setup lang="ts">
import { computed, useId } from 'vue'
import { placeOutline } from '~core/drawing/picture'
import { levelOf, lookOf, mixBelow, profileOf, type CutPoint, type Drawable } from '~core/drawing/profile'
import type { WarmthStep } from '~core/drawing/warmth'
import type { MouldMaterial } from '~core/setting/body'

/**
 * A mould as it looks: from above (or standing, where from above it would be rings), and cut through. What is drawn in
 * the cut is its volume. The name beside it says what it is; `label` says the rest to who does not see it.
 */
const { mould, view, width, height, filled = 0, warmth = 0, damp, label } = defineProps<{
  mould: Drawable & { readonly material: MouldMaterial | string, readonly wall: number }
  view: 'above' | 'cut'
  width: number
  height: number
  /** Share of what it holds that is in it. */
  filled?: number
  warmth?: WarmthStep
  /** Share of the free water left in the piece, for one that stands and dries. */
  damp?: number
  label?: string
}>()
/** How a mould’s material is hatched; a material without a hatch of its own is drawn as plastic. */
const HATCHES: Readonly<Record<string, string>> = {
  'silicone': 'silicone', 'polyurethane': 'rubber', 'latex': 'rubber', 'soft-impression': 'once', 'tray-impression': 'once', 'clay': 'clay',
  'ground': 'ground', 'plaster': 'plaster', 'wood': 'wood',
}
const id = useId(), EDGE = 3
const hatch = computed(() => HATCHES[mould.material] ?? 'plastic')
const form = computed(() => lookOf(mould))

const above = computed(() => placeOutline(mould, width, height, EDGE))
const cut = computed(() => {
  const profile = profileOf(mould), half = mould.mouth.width / 2
  const wall = Math.max(mould.wall, half * 0.08)
  const scale = Math.min((width - 2 * EDGE) / (2 * (half + wall)), (height - 2 * EDGE) / (profile.depth + wall))
  const middle = width / 2, top = height - EDGE - (profile.depth + wall) * scale
  const at = ({ x, z }: CutPoint) => `${(middle + x * scale).toFixed(1)} ${(top + z * scale).toFixed(1)}`
  const path = (points: readonly CutPoint[]) => `M${points.map(at).join('L')}`
  const out = half + wall, low = profile.depth + wall
  const body = [{ x: -out, z: 0 }, ...profile.points, { x: out, z: 0 }, { x: out, z: low }, { x: -out, z: low }]
  return {
    body: `${path(body)}Z`,
    // Its inside has a line of its own, which is dashed where it is a guess: a solid one under it would hide that.
    outside: path([
      profile.points[0]!, { x: -out, z: 0 }, { x: -out, z: low }, { x: out, z: low }, { x: out, z: 0 },
      profile.points.at(-1)!,
    ]),
    inside: path(profile.points),
    mix: filled > 0 ? `${path(mixBelow(profile, levelOf(profile, filled * mould.volume.value)))}Z` : undefined,
    measured: profile.measured || mould.form !== undefined,
  }
})
</script>

<template>
  <svg
    :width="width"
    :height="height"
    :viewBox="`0 0 ${width} ${height}`"
    :role="label ? 'img' : undefined"
    :aria-label="label"
    :aria-hidden="label ? undefined : true"
  >
    <template v-if="view === 'cut'">
      <pattern :id="id" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="6" height="6" :fill="`var(--of-${hatch})`" />
        <path d="M0 0V6" :stroke="`var(--hatch-${hatch})`" stroke-width="1.6" />
      </pattern>
      <path v-if="cut.mix" :d="cut.mix" :fill="`var(--warmth-${warmth})`" />
      <path :d="cut.body" :fill="`url(#${id})`" />
      <path :d="cut.outside" fill="none" class="edge" />
      <path :d="cut.inside" fill="none" :class="['edge', { guessed: !cut.measured }]" />
    </template>
    <template v-else>
      <linearGradient v-if="damp !== undefined" :id="id" x1="0" x2="0" y1="1" y2="0">
        <stop :offset="damp" stop-color="var(--wet)" />
        <stop :offset="damp" stop-color="var(--dry)" />
      </linearGradient>
      <g :transform="`translate(${above.x} ${above.y}) scale(${above.w / 100} ${above.h / 100})`">
        <path :d="form.edge" :fill="damp === undefined ? 'var(--dry)' : `url(#${id})`" class="edge" />
        <path v-for="l in form.lines" :key="l" :d="l" fill="none" class="line" />
      </g>
    </template>
  </svg>
</template>

<style scoped>
svg { display: block; max-width: 100%; }
.edge { stroke: var(--drawn, var(--ink)); stroke-width: 2; stroke-linejoin: round; vector-effect: non-scaling-stroke; }
.line { stroke: var(--drawn, #23292e); stroke-width: 1.4; stroke-linejoin: round; vector-effect: non-scaling-stroke; }
.guessed { stroke-dasharray: 4 4; }
</style>
