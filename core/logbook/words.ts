import { POWDER_WORDS } from '../gypsum/words'
import { releaseWords } from '../mould/words'
import { formatConsistency, formatDuration, formatTemperature } from '../units/format'
import { sentenceOf, within, type Sentences } from '../units/sentences'
import { METRIC, type UnitPreferences } from '../units/units'
import type { PourStatus } from '../pour/fold'
import { STATUS_GROUPS, type StatusGroup } from './status'
import type { RatioWanted, Said } from './why'

/** What the logbook says. Nothing reads these sentences. */

const percent = (x: number) => `${Math.round(100 * Math.abs(x))} %`
const toTen = (t: number) => formatDuration(Math.round(t / 10) * 10)
const minutes = (t: number) => formatDuration(t, 'minute')
/** A material within a sentence: its id is what it is called there. */
const plain = (material: string) => material.replace('-', ' ')

function ratioWanted(wanted: RatioWanted, ratio: number): string {
  const had = formatConsistency(ratio)
  return 'planned' in wanted
    ? `planned (${had} for ${formatConsistency(wanted.planned)})`
    : `usual for its powder (${had} for ${formatConsistency(wanted.low)} to ${formatConsistency(wanted.high)})`
}

const EVIDENCE: Sentences<Said, [prefs: UnitPreferences]> = {
  'more-water': e => `${percent(e.by)} more water than ${ratioWanted(e.wanted, e.ratio)}`,
  'less-water': e => `${percent(e.by)} less water than ${ratioWanted(e.wanted, e.ratio)}`,
  'ratio-fine': e => e.asUsed ? 'its ratio was usual for its powder' : 'its ratio was as planned',
  'water-stood': 'water stood on it',
  'lumps-felt': 'lumps were felt',
  'stirred-as-planned': 'stirred about as long as planned',
  'soaked-as-planned': 'soaked as long as planned',
  'water-onto-powder': 'water was poured onto the powder, which easily stays dry underneath',
  'folded-in': 'its colour was folded in last',
  'marked-stiff': 'it was marked as no longer pouring',
  'stirred-times': e => `stirred ${e.times.toFixed(1)} times as long as planned`,
  'stirred-only': e => `stirred only ${percent(e.share)} of the planned time`,
  'soaked-only': e => `soaked ${toTen(e.soaked)} of ${toTen(e.planned)}`,
  'filled-stiff': e =>
    e.after > 0 ? `filled ${toTen(e.after)} after it was too stiff to pour` : 'filled just as it became too stiff',
  'filled-fluid': 'filled while it still flowed',
  'opened-strong': 'opened when it was strong enough',
  'warm-enough': 'it was warm enough',
  'water-not-warm': 'the water was not warm',
  'bag-sound': 'its bag is known and sound',
  'opened-early': e => `opened ${minutes(e.after)} after wetting, where about ${minutes(e.needed)} are needed`,
  'cold': (e, prefs) => `room ${formatTemperature(e.room, prefs)}, water ${formatTemperature(e.water, prefs)}`,
  'warm-water': (e, prefs) => `water of ${formatTemperature(e.water, prefs)}`,
  'bag-doubtful': e => `“${e.bag}” is old, damp or unknown`,
  'gloss-late': e => `the gloss went ${minutes(e.by)} later than it should at the latest`,
  'needs-release': e => `${plain(e.rule.material)} needs release: ${releaseWords(e.rule).toLowerCase()}`,
  'needs-no-release': e => `${plain(e.material)} needs no release`,
  'greased': e => `${plain(e.material)} is greased before each pour`,
  'poured-bare': e => `${plain(e.material)} is poured bare`,
  'tear': 'a tear was seen in this mould',
  'no-tear': 'no tear was noted of it',
  'one-piece': 'the mould is in one piece',
  'leaked': 'it leaked',
  'thin-parts': 'the piece has thin parts',
  'no-thin-parts': 'the piece has no thin parts',
  'parts': e => `the mould has ${e.parts} parts`,
  'pour-hole': 'it is filled through a pour hole',
  'closed': 'it is closed all round',
  'open-above': 'the mould is open above',
  'little-mix': e =>
    `${percent(e.by)} less went into the bucket than ${e.planned ? 'planned' : 'its moulds take'}`,
  'mix-enough': e => `as much was weighed as ${e.planned ? 'planned' : 'its moulds take'}`,
  'said-short': 'it was said to be short',
  'nothing-over': 'nothing was left over',
  'some-over': 'some was left over',
  'poured-at-once': 'it was poured at once',
  'coat-in-time': 'laid while the coat before had its gloss',
  'coat-late': e => `laid ${toTen(e.after)} after the coat before lost its gloss`,
  'stood-hot': (_, prefs) => `it stood in the sun or above ${formatTemperature(45, prefs)}`,
  'stood-cool': 'it stood neither in sun nor heat',
  'one-face': 'it lay on one face',
  'air-all-round': 'air reached it all round',
  'dry-in-time': 'it had time to dry',
  'finished-early': e => `finished ${percent(e.by)} before it could be dry`,
  'additive-over': 'an additive above its harmful share',
  'additives-fine': 'additives were within bounds',
  'nothing-added': 'nothing was added',
  'not-by-scoops': 'it was not counted in scoops',
  'by-scoops': e => `counted in scoops of ${within(POWDER_WORDS[e.classId].name)}`,
}

/** What a pour's record says about a cause. */
export function evidenceWords(said: Said, prefs: UnitPreferences = METRIC): string {
  return sentenceOf(EVIDENCE, said, prefs)
}

/** Where a pour stands, in one or two words; the same everywhere. */
export const STATUS_WORDS: Readonly<Record<StatusGroup, string>> = {
  bench: 'on the bench',
  setting: 'setting',
  drying: 'drying',
  finished: 'finished',
  abandoned: 'given up',
}
export const statusWords = (status: PourStatus) => STATUS_WORDS[STATUS_GROUPS[status]]

export type CheckListId = 'dental' | 'print' | 'relief' | 'shell'
export interface CheckListWords {
  readonly name: string
  /** Where its limits are from. */
  readonly source: string
}
export const CHECK_LIST_WORDS: Readonly<Record<CheckListId, CheckListWords>> = {
  dental: { name: 'Dental model and base', source: 'common practice' },
  print: { name: 'Cast of a print', source: 'common practice' },
  relief: { name: 'Flat relief or tile', source: 'common practice' },
  shell: { name: 'Shell, by its own plan', source: 'the plan of this pour' },
}

/** What the lists measure. Stored by these ids; what someone else measures is stored as they call it. */
const MEASURE_WORDS = {
  'base': 'Base',
  'thinnest': 'Thinnest place',
  'over-ground': 'Plaster over the highest ground',
  'rim': 'Thickness at the rim',
  'middle': 'Thickness in the middle',
  'out-of-flat': 'Out of flat, at most',
}
export type MeasureId = keyof typeof MEASURE_WORDS
export const measureName = (what: string): string => MEASURE_WORDS[what as MeasureId] ?? what
