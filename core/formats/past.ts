import type { PourRow } from './table-in'
import { powderClass } from '../gypsum/powders'
import type { Happening, Instant, Verdict } from '../pour/events'
import type { MouldFacts, Plan, PlanWorld } from '../plan/types'
import { castsOf, type FrozenRun } from '../plan/run'

/** Pours of the past, of which a table tells the day, the mould and what came of it. */

const DAY = 86_400_000
/** Nobody knows which bucket it was: one in which it had room. */
const BUCKET_OF_THEN = {
  id: '00000000-0000-4000-8000-000000000000',
  name: 'the bucket of then',
  vessel: { bottom: 0.9, top: 1, height: 1.4 },
} as const

/**
 * A plan such as it must have been: by the weights where they are known, else as the powder is usually mixed. The ratio
 * is taken to the hundredth: what was planned then nobody knows.
 */
export function pastPlan(
  row: PourRow,
  mould: MouldFacts,
  bag: PlanWorld['bag'],
): { readonly plan: Plan, readonly world: PlanWorld } {
  const powder = powderClass(row.classId),
    weighed = row.water !== undefined && row.powder !== undefined
      ? Math.round(100 * row.water / row.powder) / 100
      : undefined
  return {
    plan: {
      name: mould.name,
      endUse: 'painted',
      fills: [{ mould: mould.id, count: row.pieces }],
      classId: row.classId,
      bag: row.bag,
      school: 'weighed',
      ratio: weighed ?? powder.ratio.recommended,
      scoop: { volume: 250e-6, filling: 'loose', perWater: 2 },
      waterTemperature: 20,
      roomTemperature: 20,
      bucket: BUCKET_OF_THEN.id,
      losses: 0.06,
      soakMinutes: 2,
      stir: { tool: 'hand', minutes: 2 },
      additions: [],
      known: { what: 'moulds', amount: 0 },
    },
    world: { moulds: [mould], bucket: BUCKET_OF_THEN, bag },
  }
}

/**
 * What happened, as far as the row tells it: all within its day, which is why no time of day in it counts (`daysOnly`).
 * The pieces are not on the shelf any more.
 */
export function pastHappenings(
  row: PourRow,
  run: FrozenRun,
): readonly { readonly at: Instant, readonly batch?: number, readonly what: Happening }[] {
  const noon = Date.parse(row.date) + DAY / 2,
    list: { at: number, batch?: number, what: Happening }[] = [],
    planned = run.batches.reduce((s, b) => s + b.mix.powder, 0)
  const say = (hours: number, what: Happening, batch?: number) =>
    list.push({ at: noon + hours * 3_600_000, batch, what })
  say(0, { kind: 'stage', data: { stage: 'ready' } }, 0)
  run.batches.forEach((b, i) => {
    // Only the whole was weighed: each batch had its share.
    const share = b.mix.powder / planned
    if (row.water !== undefined)
      say(0.1, { kind: 'weighed', data: { what: 'water', mass: row.water * share, how: 'scale' } }, i)
    if (row.powder !== undefined)
      say(0.1, { kind: 'weighed', data: { what: 'powder', mass: row.powder * share, how: 'scale' } }, i)
    say(0.2 + 0.5 * i, { kind: 'stage', data: { stage: 'sift' } }, i)
    say(0.5 + 0.5 * i, { kind: 'stage', data: { stage: 'clean-up' } }, i)
  })
  const casts = castsOf(run),
    verdicts: readonly (Verdict | undefined)[] = [
      ...Array<Verdict>(row.waste ?? 0).fill('waste'),
      ...Array<Verdict>(row.second ?? 0).fill('second'),
      ...Array<Verdict>(row.good ?? 0).fill('good'),
    ]
  // What was wrong was wrong with those that did not come out well; with one of them, if all did.
  const spoiled = (row.waste ?? 0) + (row.second ?? 0) || (row.defects.length > 0 ? 1 : 0),
    end = 1 + 0.5 * run.batches.length
  casts.forEach(({ id }, i) => {
    const verdict = verdicts[i]
    if (verdict)
      say(end, {
        kind: 'judged',
        data: { cast: id, verdict, defects: i < spoiled ? row.defects : [], note: i === 0 ? row.note : '' },
      })
    if (verdict !== 'waste') say(end + 0.1, { kind: 'finished', data: { cast: id } })
  })
  if (row.note && !verdicts[0]) say(end, { kind: 'note', data: { text: row.note } })
  return list
}
