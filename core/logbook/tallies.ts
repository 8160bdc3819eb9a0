import { defectWords } from '../pour/defects'
import type { Instant } from '../pour/events'
import type { CastSummary, PourSummary } from '../pour/projection'
import { STATUS_GROUPS } from './status'
import { STATUS_WORDS } from './words'

/**
 * What the logbook looks for and counts: worked out whenever a pour changes, so that a list of many thousands need not
 * be read to answer.
 */

/** A planned ratio that was missed by more than this counts as missed (common practice, no source). */
export const RATIO_MISSED = 0.05

/** The words of a text as they are looked for: small letters without accents, at letters and digits only. */
export function wordsOf(text: string): readonly string[] {
  return [...new Set(text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [])]
}

/**
 * Beginnings of words up to this long are kept as well, marked so that they are no words: a few letters begin too many
 * words to ask for each.
 */
export const BEGINNING = 4
export const beginning = (letters: string) => `^${letters}`

/** Words with their beginnings, as a pour is found by them. */
export function withBeginnings(words: readonly string[]): readonly string[] {
  return [...new Set(words.flatMap((w) => {
    const letters = [...w].slice(0, BEGINNING)
    return [w, ...letters.map((_, i) => beginning(letters.slice(0, i + 1).join('')))]
  }))]
}

/**
 * Every word by which a pour can be found: its name, powder, bag, moulds, state, what was wrong and what was noted of
 * its casts.
 */
export function searchWords(pour: PourSummary, casts: readonly CastSummary[]): readonly string[] {
  return wordsOf(
    [
      pour.name,
      pour.powder,
      pour.bag,
      STATUS_WORDS[STATUS_GROUPS[pour.status]],
      ...pour.moulds.map(m => m.name),
      ...pour.defects.map(defectWords),
      ...casts.map(c => c.note),
    ].join(' '),
  )
}

/** What a pour can be filtered by: `kind:value`. */
export function factsOf(pour: PourSummary, casts: readonly CastSummary[]): readonly string[] {
  const { good, second, waste } = pour.verdicts,
    missed = pour.ratio.actual !== undefined && !pour.daysOnly
      && Math.abs(pour.ratio.actual / pour.ratio.planned - 1) > RATIO_MISSED
  return [
    ...new Set([
      `status:${STATUS_GROUPS[pour.status]}`,
      `powder:${pour.classId}`,
      ...pour.daysOnly ? [] : [`use:${pour.endUse}`, `measured:${pour.school}`],
      ...pour.bagId ? [`bag:${pour.bagId}`] : [],
      ...casts.map(c => `mould:${c.mouldId}`),
      ...pour.defects.map(d => `defect:${d}`),
      ...good ? ['verdict:good'] : [],
      ...second ? ['verdict:second'] : [],
      ...waste ? ['verdict:waste'] : [],
      ...missed ? ['ratio:missed'] : [],
      ...pour.glyph.some(m => m.id === 'set' && m.actual !== undefined) ? ['marked:set'] : [],
    ]),
  ]
}

/**
 * One count: whole numbers only (grams, hundredths of the workshop's money), so that what is taken away again leaves
 * nothing behind.
 */
export interface Counts {
  readonly pours: number
  readonly casts: number
  readonly judged: number
  readonly good: number
  readonly second: number
  readonly waste: number
  readonly powderGrams: number
  /** Of pours whose price is known whole: what they cost and the pieces that can be used. */
  readonly costHundredths: number
  readonly pieces: number
  /** Casts whose mix was weighed and used up, and what they took together, mm³. */
  readonly tookCasts: number
  readonly tookCubicMillimetres: number
}
export const NO_COUNTS: Counts = {
  pours: 0,
  casts: 0,
  judged: 0,
  good: 0,
  second: 0,
  waste: 0,
  powderGrams: 0,
  costHundredths: 0,
  pieces: 0,
  tookCasts: 0,
  tookCubicMillimetres: 0,
}
export const COUNTED = Object.keys(NO_COUNTS) as (keyof Counts)[]

/** `cause`: what was found to be behind a defect, under `defect cause`; each finding counts as a cast. */
export type Series = 'all' | 'mould' | 'bag' | 'defect' | 'cause'
/** What one pour adds to a series in the month (UTC, `2026-11`) of its start. */
export interface Tally {
  readonly series: Series
  readonly key: string
  readonly month: string
  readonly counts: Counts
}

function monthOf(at: Instant): string {
  return new Date(at).toISOString().slice(0, 7)
}

/** What was found to be behind a pour's defects. */
function causesOf(pour: PourSummary, month: string): readonly Tally[] {
  const keys = (pour.causes ?? []).map(({ defect, cause }) => `${defect} ${cause}`)
  return [...new Set(keys)].map(key => ({
    series: 'cause',
    key,
    month,
    counts: { ...NO_COUNTS, casts: keys.filter(k => k === key).length },
  }))
}

/**
 * What a pour adds to the workshop's counts; one that was never begun adds nothing, one that was given up only what was
 * found out by it.
 */
export function talliesOf(pour: PourSummary, casts: readonly CastSummary[]): readonly Tally[] {
  if (pour.startedAt === undefined) return []
  const month = monthOf(pour.startedAt), causes = causesOf(pour, month)
  if (pour.status === 'abandoned') return causes
  const count = (of: readonly CastSummary[]): Counts => {
    const filled = of.filter(c => c.filledAt !== undefined),
      having = (v: CastSummary['verdict']) => of.filter(c => c.verdict === v).length
    const took = of.flatMap(c => c.took ?? [])
    return {
      ...NO_COUNTS,
      tookCasts: took.length,
      tookCubicMillimetres: Math.round(1e9 * took.reduce((a, b) => a + b, 0)),
      pours: 1,
      casts: filled.length,
      judged: of.filter(c => c.verdict).length,
      good: having('good'),
      second: having('second'),
      waste: having('waste'),
    }
  }
  const all: Counts = {
    ...count(casts),
    powderGrams: Math.round(1000 * (pour.powderUsed ?? 0)),
    ...casts.some(c => c.verdict) && pour.cost
    && { costHundredths: Math.round(100 * pour.cost.total), pieces: pour.cost.pieces },
  }
  const moulds = [...new Set(casts.map(c => c.mouldId))]
  return [
    { series: 'all', key: '', month, counts: all },
    ...pour.bagId ? [{ series: 'bag' as const, key: pour.bagId, month, counts: all }] : [],
    ...moulds.map((key): Tally => ({
      series: 'mould',
      key,
      month,
      counts: count(casts.filter(c => c.mouldId === key)),
    })),
    ...pour.defects.map((key): Tally => ({
      series: 'defect',
      key,
      month,
      counts: count(casts.filter(c => c.defects.includes(key))),
    })),
    ...causes,
  ]
}

const name = (t: Pick<Tally, 'series' | 'key' | 'month'>) => `${t.series} ${t.key} ${t.month}`

/** What has to be added to counts that hold `before` so that they hold `now` instead; nothing where nothing changed. */
export function changeOf(before: readonly Tally[], now: readonly Tally[]): readonly Tally[] {
  const sums = new Map<string, { -readonly [K in keyof Tally]: Tally[K] }>()
  for (const [list, sign] of [[before, -1], [now, 1]] as const) {
    for (const t of list) {
      const known = sums.get(name(t)) ?? { ...t, counts: NO_COUNTS }
      known.counts = Object.fromEntries(
        COUNTED.map(c => [c, known.counts[c] + sign * t.counts[c]]),
      ) as unknown as Counts
      sums.set(name(t), known)
    }
  }
  return [...sums.values()].filter(t => COUNTED.some(c => t.counts[c] !== 0))
}
