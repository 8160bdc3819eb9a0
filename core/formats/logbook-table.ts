import { defectWords } from '../pour/defects'
import type { CastSummary, PourSummary } from '../pour/projection'
import { causeWords } from '../pour/causes'
import type { Cell } from './csv'

/** The logbook as a table: one line for each cast, SI units in the heads. */
export const LOGBOOK_HEAD = [
  'pour',
  'cast',
  'mould',
  'poured',
  'powder',
  'bag',
  'measured',
  'end use',
  'water per 100 powder planned',
  'water per 100 powder weighed',
  'status',
  'verdict',
  'defects',
  'causes found',
  'opened',
  'finished',
  'last weight g',
  'note',
] as const

const date = (at: number | undefined): Cell => at === undefined ? undefined : new Date(at).toISOString()
const day = (at: number | undefined): Cell => date(at)?.toString().slice(0, 10)
const per100 = (ratio: number | undefined): Cell => ratio === undefined ? undefined : Math.round(1000 * ratio) / 10

/** Of a pour of the past the day is known, and nothing of its plan. */
export function logbookRows(pour: PourSummary, casts: readonly CastSummary[]): readonly (readonly Cell[])[] {
  const { daysOnly } = pour
  return casts.map(c => [
    pour.name,
    c.label,
    c.mould,
    (daysOnly ? day : date)(c.filledAt ?? pour.startedAt),
    c.powder,
    pour.bag,
    daysOnly ? undefined : pour.school,
    daysOnly ? undefined : c.endUse,
    daysOnly ? undefined : per100(pour.ratio.planned),
    per100(pour.ratio.actual),
    pour.status === 'abandoned' ? 'given up' : c.status,
    c.verdict,
    c.defects.map(d => defectWords(d).toLowerCase()).join('; '),
    [
      ...new Set(
        (pour.causes ?? []).filter(x => c.defects.includes(x.defect)).map(x => causeWords(x.cause).toLowerCase()),
      ),
    ].join('; '),
    daysOnly ? undefined : date(c.openedAt),
    daysOnly ? undefined : date(c.finishedAt),
    c.drying?.lastMass === undefined ? undefined : Math.round(10_000 * c.drying.lastMass) / 10,
    c.note,
  ])
}
