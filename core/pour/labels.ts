import { formatConsistency } from '../units/format'
import type { CastSummary, PourSummary } from './summary'

/** What a label says: a short code that opens its page, a name, and a few lines. */
export interface Label { readonly code: string, readonly title: string, readonly lines: readonly string[], /** Moments of the pour, drawn small. */ readonly glyph?: PourSummary['glyph'] }

/** Short enough to be typed: eight signs of the id, and which cast. A code may be met twice in a very large workshop; then both are offered. */
export const castCode = (pour: string, cast: string) => `${pour.slice(0, 8)}-${cast}`.toUpperCase()
export const bagCode = (bag: string) => `B-${bag.slice(0, 8)}`.toUpperCase()

export type CodeMeans = { readonly what: 'cast', readonly pour: string, readonly cast: string } | { readonly what: 'bag', readonly bag: string }
/** What a code names, as typed or scanned; undefined when it is none. */
export function readCode(typed: string): CodeMeans | undefined {
  const code = typed.trim().toLowerCase()
  const cast = /^([0-9a-f]{8})-(\d{1,3}\.\d{1,3})$/.exec(code), bag = /^b-([0-9a-f]{8})$/.exec(code)
  return cast ? { what: 'cast', pour: cast[1]!, cast: cast[2]! } : bag ? { what: 'bag', bag: bag[1]! } : undefined
}

/** @param day writes a moment as a day. */
export function castLabels(pour: string, summary: PourSummary, casts: readonly CastSummary[], day: (at: number) => string): readonly Label[] {
  return casts.filter(c => c.status !== 'waiting').map(c => ({
    code: castCode(pour, c.id), title: c.label, glyph: summary.glyph,
    lines: [
      summary.name, `${c.powder} at ${formatConsistency(c.ratio)}`, c.filledAt === undefined ? '' : `Poured ${day(c.filledAt)}`,
      c.readyTo !== undefined && c.finishedAt === undefined ? `By ${day(c.readyTo)} ${c.readyWord}` : c.openedAt === undefined && c.openTo !== undefined ? `Open by ${day(c.openTo)}` : c.verdict ? c.verdict.replace(/^./, x => x.toUpperCase()) : '',
    ].filter(l => l !== ''),
  }))
}
