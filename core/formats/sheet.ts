import { cautionWords, stepWords } from '../plan/words'
import { additionKind } from '../gypsum/additions'
import { endUse } from '../gypsum/end-use'
import { powderClass } from '../gypsum/powders'
import { SCHOOLS } from '../gypsum/schools'
import {
  formatConsistency,
  formatDuration,
  formatDurationRange,
  formatLength,
  formatMass,
  formatTemperature,
  formatVolume,
  roundTo,
} from '../units/format'
import type { UnitPreferences } from '../units/units'
import { cautionsFor } from '../plan/cautions'
import { expectedMilestones } from '../pour/milestones'
import { alikeBatches } from '../plan/batches'
import { stepsOf, type FrozenRun } from '../plan/run'

/** A plan for a bench without a screen: what to weigh, what to do when, and room to write what happened. */
export interface BenchSheet {
  readonly title: string
  readonly facts: readonly string[]
  /** Batches that are alike stand once. */
  readonly batches: readonly { readonly title: string, readonly amounts: readonly (readonly [string, string])[] }[]
  readonly steps: readonly { readonly instruction: string, readonly detail: string, readonly until: string }[]
  readonly moments: readonly (readonly [string, string])[]
  readonly cautions: readonly string[]
  /** What to write down, each a blank. */
  readonly blanks: readonly string[]
}

export function benchSheet(run: FrozenRun, units: UnitPreferences): BenchSheet {
  const { plan, world, batches } = run, powder = powderClass(plan.classId), first = batches[0]!
  const slowest = first.fills.map(f => f.mould.id).reduce((a, id) =>
    run.moments[id]!.open.from > run.moments[a]!.open.from ? id : a,
  )
  const expected = expectedMilestones(
    plan.school,
    first,
    run.moments[slowest]!,
    run.drying[slowest],
    endUse(plan.endUse).dryWord,
  )
  const ends = {
    sift: first.steps.sifted,
    soak: first.steps.soaked,
    stir: first.steps.stirred,
    fill: first.steps.poured,
  } as const
  return {
    title: plan.name || 'A pour without a name',
    facts: [
      `${world.bag?.name ?? powder.name}${
        world.bag && !world.bag.name.toLowerCase().includes(powder.name.toLowerCase())
          ? ` (${powder.name.toLowerCase()})`
          : ''
      }, ${formatConsistency(run.ratio.value)} water to 100 powder by weight`,
      `${SCHOOLS.find(s => s.id === plan.school)!.name}; ${endUse(plan.endUse).name.toLowerCase()}; water ${
        formatTemperature(plan.waterTemperature, units)
      }, room ${formatTemperature(plan.roomTemperature, units)}`,
    ],
    batches: alikeBatches(batches).map(({ numbers, batch: b }) => ({
      title: batches.length === 1
        ? fillWords(b)
        : `${b.coat ? 'Coat' : numbers.length > 1 ? 'Batches' : 'Batch'} ${
          numbers.length > 1 ? `${numbers.slice(0, -1).join(', ')} and ${numbers.at(-1)}, each` : numbers[0]
        }: ${fillWords(b)}`,
      amounts: [
        ['water', `${formatMass(b.mix.water, units)} (${formatVolume(b.mix.waterVolume, units)})`],
        [
          'powder',
          b.scoops
            ? `${roundTo(b.scoops.powder, 0.5)} level scoops, about ${formatMass(b.mix.powder, units)}`
            : formatMass(b.mix.powder, units),
        ],
        ...b.mix.additions.map(a => [additionKind(a.id).name.toLowerCase(), formatMass(a.mass, units)] as const),
        ...b.levels
          ? [
              ['water line in the bucket', formatLength(b.levels.water, units)] as const,
              ['after the powder', formatLength(b.levels.final, units)] as const,
            ]
          : [],
        ['makes', formatVolume(b.mix.slurry, units)],
      ],
    })),
    steps: stepsOf(run).filter(s => s.batch === 0).map(step => ({ ...step, ...stepWords(step) })).map((
      { stage, instruction, detail },
    ) => ({
      instruction,
      detail,
      until: stage in ends ? `until ${formatDuration(ends[stage as 'sift'].value)}` : '',
    })),
    moments: expected.filter(m => ['set', 'warm', 'open', 'dry'].includes(m.id)).map(
      m => [m.phrase, formatDurationRange(m.low, m.high)],
    ),
    cautions: cautionsFor(plan, world).map(cautionWords).slice(0, 6),
    blanks: [
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
    ],
  }
}

function fillWords(b: FrozenRun['batches'][number]): string {
  return b.fills.map(f => `${f.copies} × ${f.mould.name}`).join(', ')
}
