import type { AdditionId } from '../gypsum/additions'
import type { LabCentre, LabMix } from './mix'

/** What a change of mix does: the levers that were moved, then the effects that matter, the largest first. */

/** A lever and where it stands now; `was` where it stood. */
export type LeverMoved
  = | { readonly code: 'powder' | 'water' | 'room' | 'soak' | 'stir' | 'dirt' | 'section', readonly to: LabMix }
    | { readonly code: 'shape' | 'mould' | 'behind' | 'driving', readonly to: LabMix }
    | { readonly code: 'ratio', readonly was: number, readonly to: LabMix }
    | { readonly code: 'addition', readonly addition: AdditionId, readonly share: number }

/** An effect and how large it is, as the logarithm of the ratio or something that compares with it. */
export type Effect = { readonly size: number } & (
  | { readonly code: 'pourBy' | 'glossGone' | 'open', readonly seconds: number }
  | { readonly code: 'core', readonly degrees: number }
  | { readonly code: 'dryStrength' | 'expansion', readonly ratio: number }
  | { readonly code: 'bubble', readonly ratio: number, readonly bubble: number }
  | { readonly code: 'bleed', readonly share: number }
)
export interface LabChange { readonly moved: readonly LeverMoved[], readonly effects: readonly Effect[] }

/** Smaller than a twentieth, or than a degree, it is not worth a word. */
const WORTH = 0.05, WORTH_DEGREES = 1, WORTH_BLEED = 0.01
/** What is told of the largest effects. */
const MOST_EFFECTS = 5
/** A difference that its lever does not show is none. */
const SHOWN = { ratio: 0.005, temperature: 0.5 } as const
const apart = (a: number, b: number, step: number) => Math.round(a / step) !== Math.round(b / step)

/** What was moved between two mixes, lever by lever. */
export function leversMoved(from: LabMix, to: LabMix): readonly LeverMoved[] {
  const moved: LeverMoved[] = []
  if (from.classId !== to.classId) moved.push({ code: 'powder', to })
  if (apart(from.ratio, to.ratio, SHOWN.ratio)) moved.push({ code: 'ratio', was: from.ratio, to })
  if (apart(from.waterTemperature, to.waterTemperature, SHOWN.temperature)) moved.push({ code: 'water', to })
  if (apart(from.roomTemperature, to.roomTemperature, SHOWN.temperature)) moved.push({ code: 'room', to })
  if (from.soak !== to.soak) moved.push({ code: 'soak', to })
  if (from.stir.tool !== to.stir.tool || from.stir.minutes !== to.stir.minutes) moved.push({ code: 'stir', to })
  for (const id of new Set([...from.additions, ...to.additions].map(a => a.id))) {
    const [before, share] = [from, to].map(m => m.additions.find(a => a.id === id)?.share ?? 0) as [number, number]
    if (before !== share) moved.push({ code: 'addition', addition: id, share })
  }
  for (const code of ['dirt', 'section', 'shape', 'mould', 'behind', 'driving'] as const)
    if (from[code] !== to[code]) moved.push({ code, to })
  return moved
}

/** @returns how far apart two values are, where that is worth a word */
function worth(before: number, after: number): number | undefined {
  const size = Math.abs(Math.log(after / before))
  return Number.isFinite(size) && size >= WORTH ? size : undefined
}

function effectsOf(before: LabCentre, after: LabCentre): readonly Effect[] {
  const effects: Effect[] = []
  for (const code of ['pourBy', 'glossGone', 'open'] as const) {
    const size = worth(before[code], after[code])
    if (size) effects.push({ code, size, seconds: after[code] - before[code] })
  }
  const degrees = after.warmestTemperature - before.warmestTemperature
  if (Math.abs(degrees) >= WORTH_DEGREES) effects.push({ code: 'core', size: Math.abs(degrees) / 20, degrees })
  for (const code of ['dryStrength', 'expansion'] as const) {
    const size = worth(before[code], after[code])
    if (size) effects.push({ code, size, ratio: after[code] / before[code] })
  }
  const size = worth(before.bubble, after.bubble)
  if (size) effects.push({ code: 'bubble', size, ratio: after.bubble / before.bubble, bubble: after.bubble })
  if (after.bleed > before.bleed + WORTH_BLEED)
    effects.push({ code: 'bleed', size: after.bleed * 5, share: after.bleed })
  return effects.sort((a, b) => b.size - a.size).slice(0, MOST_EFFECTS)
}

/** @example whatChanged(a, b, centreMoments(labInput(a)), centreMoments(labInput(b))) */
export function whatChanged(from: LabMix, to: LabMix, before: LabCentre, after: LabCentre): LabChange {
  return { moved: leversMoved(from, to), effects: effectsOf(before, after) }
}
