import { listed } from '../units/sentences'
import { cautionWords } from '../plan/words'
import { stepWords } from '../plan/step-words'
import { additionKind } from '../gypsum/additions'
import { endUse } from '../gypsum/end-use'
import { powderClass } from '../gypsum/powders'
import { jugOf, SCHOOLS, type SchoolId } from '../gypsum/schools'
import { WAY_IN_WORDS } from '../gypsum/words'
import {
  formatConsistency,
  formatDuration,
  formatDurationRange,
  formatLength,
  formatMass,
  formatTemperature,
  formatVolume,
  formatScoops,
} from '../units/format'
import type { UnitPreferences } from '../units/units'
import { cautionsFor } from '../plan/cautions'
import { expectedMilestones } from '../pour/milestones'
import { alikeBatches } from '../plan/batches/batches'
import { clothNeeds, CLOTHS } from '../plan/batches/cloth'
import { clothAmount } from '../plan/cloth-words'
import { stepsOf, type FrozenRun } from '../plan/run'
import { toWeigh, type ToWeigh } from '../plan/to-weigh'
import type { Vessel } from '../mould/gauge/vessel'
import type { Drawable } from '../drawing/profile'
import type { Metres } from '../units/quantity'
import type { Plan } from '../plan/types'

/** A plan for a bench without a screen: what to weigh, what to do when, and room to write what happened. */
export interface BenchSheet {
  readonly title: string
  readonly facts: readonly string[]
  /** Batches that are alike stand once. */
  readonly batches: readonly {
    readonly title: string
    readonly amounts: readonly (readonly [string, string])[]
    readonly picture?: SheetPicture
  }[]
  readonly steps: readonly { readonly instruction: string, readonly detail: string, readonly until: string }[]
  readonly moments: readonly (readonly [string, string])[]
  readonly cautions: readonly string[]
  /** What to write down, each a blank. */
  readonly blanks: readonly string[]
}

/** What stands beside the amounts: the bucket with its lines, and what is filled. */
export interface SheetPicture {
  readonly bucket?: {
    readonly vessel: Vessel
    readonly lines: readonly { readonly at: Metres, readonly words: string }[]
  }
  readonly moulds: readonly Drawable[]
}

type FrozenBatch = FrozenRun['batches'][number]

/** What it is made of and for, in two lines. */
function factLines({ plan, world, ratio }: FrozenRun, units: UnitPreferences): readonly string[] {
  const powder = powderClass(plan.classId), { bag } = world
  const told = bag && !bag.name.toLowerCase().includes(powder.name.toLowerCase())
  const named = `${bag?.name ?? powder.name}${told ? ` (${powder.name.toLowerCase()})` : ''}`
  const water = formatTemperature(plan.waterTemperature, units), room = formatTemperature(plan.roomTemperature, units)
  return [
    `${named}, ${formatConsistency(ratio.value)} water to 100 powder by weight`,
    `${SCHOOLS.find(s => s.id === plan.school)!.name}; ${endUse(plan.endUse).name.toLowerCase()}; water ${water}, room ${
      room
    }`,
  ]
}

interface Alike { readonly numbers: readonly number[], readonly batch: FrozenBatch }
function batchTitle({ numbers, batch }: Alike, of: number): string {
  if (of === 1) return fillWords(batch)
  const word = batch.coat ? 'Coat' : numbers.length > 1 ? 'Buckets' : 'Bucket'
  const which = numbers.length > 1 ? `${listed(numbers.map(String))}, each` : numbers[0]
  return `${word} ${which}: ${fillWords(batch)}`
}

type Rows = readonly (readonly [string, string])[]
function mainRows({ mix, scoops }: FrozenBatch, school: SchoolId, units: UnitPreferences): Rows {
  const powder = formatMass(mix.powder, units), jug = jugOf(mix.water)
  if (school === 'powder-first') return [
    ['powder', powder],
    ['water in the jug', formatMass(jug.full, units)],
    ['of it at first', formatMass(jug.first, units)],
  ]
  return [
    ['water', `${scoops ? `${formatScoops(scoops.water, 'level ')}, ` : ''}${formatMass(mix.water, units)} (${formatVolume(mix.waterVolume, units)})`],
    ['powder', scoops ? `${formatScoops(scoops.powder, 'level ')}, about ${powder}` : powder],
  ]
}
/** Cloth that is dipped into this coat. */
function clothRows({ coat, fills }: FrozenBatch, { coats }: Plan, units: UnitPreferences): Rows {
  const cloth = coats?.cloth
  if (!cloth || cloth.coat !== coat?.number) return []
  const casts = fills.reduce((n, f) => n + f.copies, 0), { name } = CLOTHS.find(c => c.id === cloth.kind)!
  return [[`${name.toLowerCase()}, dipped`, clothAmount(cloth, clothNeeds(cloth, casts), units)]]
}
/** What stands beside water and powder: their parts, and what is added, in the order in which it is used. */
function weighRow(w: ToWeigh, units: UnitPreferences): Rows {
  if (w.what === 'addition')
    return [[`${additionKind(w.id).name.toLowerCase()}, ${WAY_IN_WORDS[w.way].into.toLowerCase()}`, formatMass(w.mass, units)]]
  if (w.what === 'water' || !w.split) return []
  return [['mixed yourself', `${formatMass(w.split.plaster, units)} plaster, ${formatMass(w.split.filler, units)} silica flour`]]
}
/** What goes into a bucket, in the order in which it goes in. */
function amountRows(batch: FrozenBatch, plan: Plan, units: UnitPreferences): Rows {
  const { mix, levels } = batch
  return [
    ...mainRows(batch, plan.school, units),
    ...toWeigh(plan, mix).flatMap(w => weighRow(w, units)),
    ...levels
      ? [
          ...levels.water ? [['water line in the bucket', formatLength(levels.water, units)] as const] : [],
          [levels.water ? 'after the powder' : 'mixed, in the bucket', formatLength(levels.final, units)] as const,
        ]
      : [],
    ...clothRows(batch, plan, units),
    ['makes', formatVolume(mix.slurry, units)],
  ]
}

function pictureOf({ levels, fills }: FrozenBatch, { world }: FrozenRun, units: UnitPreferences): SheetPicture {
  const at = [levels?.water, levels?.final].filter(l => l !== undefined && l > 0) as Metres[]
  return {
    ...world.bucket && at.length > 0 && {
      bucket: { vessel: world.bucket.vessel, lines: at.map(l => ({ at: l, words: formatLength(l, units) })) },
    },
    moulds: fills.map(f => f.mould),
  }
}

/** The steps of one batch, each with when it ends. */
function stepRows(run: FrozenRun): BenchSheet['steps'] {
  const { sifted: sift, soaked: soak, stirred: stir, poured: fill } = run.batches[0]!.steps
  const ends: Readonly<Partial<Record<string, { readonly value: number }>>> = { sift, soak, stir, fill }
  return stepsOf(run).filter(s => s.batch === 0).map((step) => {
    const { instruction, detail } = stepWords(step), end = ends[step.stage]
    return { instruction, detail, until: end ? `until ${formatDuration(end.value)}` : '' }
  })
}

/** What is to come, of the mould that takes longest to open. */
function momentRows(run: FrozenRun): BenchSheet['moments'] {
  const first = run.batches[0]!, opens = (id: string) => run.moments[id]!.open.from
  const slowest = first.fills.map(f => f.mould.id).reduce((a, id) => opens(id) > opens(a) ? id : a)
  const { school, endUse: use } = run.plan
  return expectedMilestones(school, first, run.moments[slowest]!, run.drying[slowest], endUse(use).dryWord)
    .filter(m => ['set', 'warm', 'open', 'dry'].includes(m.id))
    .map(m => [m.phrase, formatDurationRange(m.low, m.high)])
}

const BLANKS = [
  'water weighed',
  'powder weighed',
  'water, °',
  'room, °',
  'powder met water at',
  'stirring began at',
  'all poured at',
  'gloss gone at',
  'opened at',
  'good / second / waste',
] as const

export function benchSheet(run: FrozenRun, units: UnitPreferences): BenchSheet {
  const { plan, world, batches } = run
  return {
    title: plan.name || 'A pour without a name',
    facts: factLines(run, units),
    batches: alikeBatches(batches).map(alike => ({
      title: batchTitle(alike, batches.length),
      amounts: amountRows(alike.batch, plan, units),
      picture: pictureOf(alike.batch, run, units),
    })),
    steps: stepRows(run),
    moments: momentRows(run),
    cautions: cautionsFor(plan, world).map(c => cautionWords(c, units)).slice(0, 6),
    blanks: plan.school === 'powder-first' ? ['powder weighed', 'left in the jug', ...BLANKS.slice(2)] : BLANKS,
  }
}

function fillWords(b: FrozenRun['batches'][number]): string {
  return b.fills.map(f => `${f.copies} × ${f.mould.name}`).join(', ')
}
