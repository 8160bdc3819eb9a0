import { wordedIn } from '../units/sentences'
import type { UnitPreferences } from '../units/units'
import type { DefectId } from './defects'
import { CAUSE_WORDS, type CauseWords } from './words'

/**
 * Causes of defects, and which brings which. Common practice, no source; how often is an engineering guess. What a
 * pour's record says of each: why.
 */

interface Cause extends CauseWords {
  readonly id: string
  /** How often it is behind each defect when nothing is known; a defect that is not named it does not bring about. */
  readonly brings: Partial<Record<DefectId, number>>
}

const CAUSE_FACTS = [
  {
    id: 'too-thin',
    brings: { 'soft': 3, 'crack': 0.8, 'efflorescence': 0.6, 'lumps': 0.2, 'broken-edge': 0.8 },
  },
  {
    id: 'too-thick',
    brings: { 'surface-bubbles': 1.6, 'void': 1.4, 'short': 0.7, 'layer-line': 0.6, 'lumps': 0.8 },
  },
  {
    id: 'stirred-long',
    brings: { 'surface-bubbles': 1.4, 'layer-line': 1.2, 'short': 0.7, 'soft': 0.5, 'void': 0.5 },
  },
  {
    id: 'stirred-little',
    brings: { lumps: 2, streaks: 1, soft: 0.7 },
  },
  {
    id: 'soak-short',
    brings: { 'lumps': 1.8, 'surface-bubbles': 1 },
  },
  {
    id: 'poured-late',
    brings: { 'layer-line': 2.2, 'void': 1.3, 'short': 1.2, 'surface-bubbles': 1, 'streaks': 0.6 },
  },
  {
    id: 'opened-early',
    brings: { 'broken-edge': 2.6, 'torn': 1.8, 'warped': 1.6, 'soft': 1, 'crack': 0.8 },
  },
  {
    id: 'cold',
    brings: { 'soft': 0.9, 'broken-edge': 0.7, 'torn': 0.4 },
  },
  {
    id: 'hot-water',
    brings: { 'lumps': 1.4, 'layer-line': 0.8, 'short': 0.4 },
  },
  {
    id: 'old-powder',
    brings: { soft: 1.6, lumps: 1.4, crack: 0.4 },
  },
  {
    id: 'release-missing',
    brings: { 'stuck': 3, 'torn': 1.4, 'broken-edge': 0.7 },
  },
  {
    id: 'release-much',
    brings: { 'streaks': 2.2, 'surface-bubbles': 0.6, 'stain': 1 },
  },
  {
    id: 'worn-mould',
    brings: { torn: 1.4, flash: 1.4, stuck: 0.5, stain: 0.6 },
  },
  {
    id: 'seam-open',
    brings: { flash: 2, short: 0.6 },
  },
  {
    id: 'thin-part',
    brings: { 'broken-edge': 1, 'torn': 0.7, 'void': 0.5 },
  },
  {
    id: 'air-shut-in',
    brings: { 'void': 2.4, 'surface-bubbles': 0.5 },
  },
  {
    id: 'too-little',
    brings: { short: 2.6, void: 0.4 },
  },
  {
    id: 'coat-late',
    brings: { 'layer-line': 2.4, 'crack': 0.8 },
  },
  {
    id: 'dried-hot',
    brings: { crack: 2, warped: 1.4, soft: 0.8 },
  },
  {
    id: 'dried-one-side',
    brings: { warped: 1.8, crack: 0.9 },
  },
  {
    id: 'finished-damp',
    brings: { efflorescence: 2.4, stain: 1.4, streaks: 0.3 },
  },
  {
    id: 'additive',
    brings: { efflorescence: 1.6, soft: 0.9, streaks: 0.8, crack: 0.4 },
  },
  {
    id: 'measured-by-volume',
    brings: { 'soft': 0.9, 'short': 0.5, 'surface-bubbles': 0.4 },
  },
] as const satisfies readonly Omit<Cause, keyof CauseWords>[]

const LIST = CAUSE_FACTS.map(x => ({ ...x, ...CAUSE_WORDS[x.id] }))

export type CauseId = typeof CAUSE_FACTS[number]['id']
export const CAUSES: readonly (Cause & { readonly id: CauseId })[] = LIST
export const CAUSE_IDS = CAUSES.map(c => c.id) as unknown as readonly [CauseId, ...CauseId[]]
export const causeOf = (id: CauseId) => CAUSES.find(c => c.id === id)!
/** What to do next time. */
export const nextTimeWords = (id: CauseId, prefs: UnitPreferences) => wordedIn(causeOf(id).nextTime, prefs)
export const causeWords = (id: CauseId) => causeOf(id).words
