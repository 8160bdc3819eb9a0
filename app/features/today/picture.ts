import { dampAt, warmthStep, type WarmthStep } from '~core/drawing/warmth'
import type { CastSummary, PourSummary } from '~core/pour/projection'
import type { CastRow, PourRow } from '~contract/pour'
import type { CastGroup } from '~/features/shelf/groups'

/** What Today draws, from what is known of pours and casts: where each thing stands, and how it looks by now. */

/** Stages in which water and powder are still two things, or nothing is mixed yet. */
const DRY_STAGES = new Set(['gauge', 'ready', 'weigh']), SIFTING = new Set(['sift'])

/** How a bucket looks: the share of its powder that is in, and whether it was stirred. */
export interface BucketLook { readonly sifted: number, readonly mixed: boolean }
/** While sifting, by how long it was to take: nobody counts the handfuls. */
export function bucketLook({ step, wetAt, glyph }: PourSummary, now: number): BucketLook {
  if (DRY_STAGES.has(step.stage) || wetAt === undefined) return { sifted: 0, mixed: false }
  const whole = glyph.find(m => m.id === 'sift')?.value ?? 60
  if (SIFTING.has(step.stage)) return { sifted: Math.min(1, (now - wetAt) / 1000 / whole), mixed: false }
  return { sifted: 1, mixed: step.stage !== 'soak' }
}

/** How warm the casts of a pour are drawn. */
export function pourWarmth({ glyph, wetAt }: PourSummary, now: number): WarmthStep {
  const at = (id: string) => {
    const mark = glyph.find(m => m.id === id)
    return mark?.actual ?? mark?.value
  }
  const gloss = at('set'), warmest = at('warm')
  if (wetAt === undefined || gloss === undefined || warmest === undefined) return 0
  return warmthStep((now - wetAt) / 1000, { gloss, warmest })
}

/** How damp a piece is drawn; nothing is known of one that still stands in its mould. */
export const dampOf = ({ drying }: CastSummary, now: number): number | undefined => dampAt(drying?.damp ?? [], now)

/** A pour at the table: in its bucket, or in its moulds, with the moulds it goes into. */
export interface OnTable {
  readonly pour: PourRow
  readonly inBucket: boolean
  readonly casts: readonly CastSummary[]
}
export function onTable(live: readonly PourRow[], casts: readonly CastRow[]): readonly OnTable[] {
  return live.map(pour => ({
    pour,
    inBucket: pour.summary.status !== 'setting',
    casts: casts.filter(c => c.pour === pour.id && ['waiting', 'setting'].includes(c.cast.status)).map(c => c.cast),
  }))
}

const ON_SHELF = new Set(['judge', 'ready-now', 'drying', 'kept-damp'])
/** What stands on the shelf: ready first, then what dries soonest. */
export const onShelf = (groups: readonly CastGroup[]): readonly CastGroup[] => groups.filter(g => ON_SHELF.has(g.need))

/** The one thing that is next: wet mix first, then what closes first. */
export type Next
  = | { readonly what: 'pour', readonly pour: PourRow }
    | { readonly what: 'cast', readonly group: CastGroup }
    | { readonly what: 'nothing' }
export function nextThing(live: readonly PourRow[], due: readonly CastGroup[]): Next {
  const wet = live.filter(p => p.summary.status !== 'setting')
    .sort((a, b) => (a.summary.wetAt ?? Infinity) - (b.summary.wetAt ?? Infinity))[0]
  if (wet) return { what: 'pour', pour: wet }
  const open = due.filter(g => g.need === 'open-now').sort((a, b) => (a.first.openTo ?? 0) - (b.first.openTo ?? 0))[0]
  const group = due.find(g => g.need === 'open-late') ?? open ?? due[0]
  return group ? { what: 'cast', group } : { what: 'nothing' }
}
