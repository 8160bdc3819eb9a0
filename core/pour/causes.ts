import type { DefectId } from './defects'

/**
 * Causes of defects, and which brings which. Common practice, no source; how often is an engineering guess. What a
 * pour's record says of each: why.
 */

interface Cause {
  readonly id: string
  readonly words: string
  readonly nextTime: string
  /** How often it is behind each defect when nothing is known; a defect that is not named it does not bring about. */
  readonly brings: Partial<Record<DefectId, number>>
}

const LIST = [
  {
    id: 'too-thin',
    words: 'Mixed too thin',
    nextTime:
      'Weigh both, and read the scale with the bucket level; powder brings a thin mix back only before it is stirred.',
    brings: { 'soft': 3, 'crack': 0.8, 'efflorescence': 0.6, 'lumps': 0.2, 'broken-edge': 0.8 },
  },
  {
    id: 'too-thick',
    words: 'Mixed too thick',
    nextTime: 'Take the planned water; what is over in powder asks for more water before it is stirred.',
    brings: { 'surface-bubbles': 1.6, 'void': 1.4, 'short': 0.7, 'layer-line': 0.6, 'lumps': 0.8 },
  },
  {
    id: 'stirred-long',
    words: 'Stirred too long',
    nextTime: 'Stop as soon as it coats a glove; a longer soak needs less stirring.',
    brings: { 'surface-bubbles': 1.4, 'layer-line': 1.2, 'short': 0.7, 'soft': 0.5, 'void': 0.5 },
  },
  {
    id: 'stirred-little',
    words: 'Stirred too little',
    nextTime: 'Feel along the wall and the bottom until no lump is left.',
    brings: { lumps: 2, streaks: 1, soft: 0.7 },
  },
  {
    id: 'soak-short',
    words: 'Soaked too short',
    nextTime: 'Leave it for the whole soak, hands off: it saves stirring and bubbles.',
    brings: { 'lumps': 1.8, 'surface-bubbles': 1 },
  },
  {
    id: 'poured-late',
    words: 'Poured after it had begun to stiffen',
    nextTime: 'Fewer moulds to a batch, colder water, or two people; thinnest detail first.',
    brings: { 'layer-line': 2.2, 'void': 1.3, 'short': 1.2, 'surface-bubbles': 1, 'streaks': 0.6 },
  },
  {
    id: 'opened-early',
    words: 'Opened too early',
    nextTime: 'Wait until it is past its warmest; a thin piece until it has cooled.',
    brings: { 'broken-edge': 2.6, 'torn': 1.8, 'warped': 1.6, 'soft': 1, 'crack': 0.8 },
  },
  {
    id: 'cold',
    words: 'Too cold to set in its time',
    nextTime: 'Bring water, powder and mould to 18 to 22 °C, or wait twice as long.',
    brings: { 'soft': 0.9, 'broken-edge': 0.7, 'torn': 0.4 },
  },
  {
    id: 'hot-water',
    words: 'Water too warm',
    nextTime: 'Cold or room water: warm water makes lumps and takes the time to pour.',
    brings: { 'lumps': 1.4, 'layer-line': 0.8, 'short': 0.4 },
  },
  {
    id: 'old-powder',
    words: 'Old or damp powder',
    nextTime: 'A cup test before the next pour; open a fresh bag, and keep it shut and dry.',
    brings: { soft: 1.6, lumps: 1.4, crack: 0.4 },
  },
  {
    id: 'release-missing',
    words: 'Too little release',
    nextTime: 'Work the release into every corner and buff it; bare plaster bonds to plaster.',
    brings: { 'stuck': 3, 'torn': 1.4, 'broken-edge': 0.7 },
  },
  {
    id: 'release-much',
    words: 'Release laid on too thick',
    nextTime: 'A very thin film, brushed out; wipe the pool out of the corners.',
    brings: { 'streaks': 2.2, 'surface-bubbles': 0.6, 'stain': 1 },
  },
  {
    id: 'worn-mould',
    words: 'Worn or torn mould',
    nextTime: 'Mend or recast the mould; look at the seam and the tear-stops before each pour.',
    brings: { torn: 1.4, flash: 1.4, stuck: 0.5, stain: 0.6 },
  },
  {
    id: 'seam-open',
    words: 'Halves not tight',
    nextTime: 'Tape or strap the halves without stretch, plug the seam with clay, look once more when it is full.',
    brings: { flash: 2, short: 0.6 },
  },
  {
    id: 'thin-part',
    words: 'A thin part without time or talc',
    nextTime: 'Talc in the tips, a first coat by brush, and open by bending the mould away, not the cast.',
    brings: { 'broken-edge': 1, 'torn': 0.7, 'void': 0.5 },
  },
  {
    id: 'air-shut-in',
    words: 'Air could not leave',
    nextTime: 'A little first, tilt and tap, then the rest; a vent at the highest place that stays hollow.',
    brings: { 'void': 2.4, 'surface-bubbles': 0.5 },
  },
  {
    id: 'too-little',
    words: 'Too little mix',
    nextTime: 'Gauge the mould again and keep a spare of 6 to 10 %; an overflow mould takes what is left.',
    brings: { short: 2.6, void: 0.4 },
  },
  {
    id: 'coat-late',
    words: 'The coat before had set',
    nextTime: 'Next coat before the gloss goes, or score, wet and coat it thinly first.',
    brings: { 'layer-line': 2.4, 'crack': 0.8 },
  },
  {
    id: 'dried-hot',
    words: 'Dried too warm or in the sun',
    nextTime: 'Moving air, no sun, never above 45 °C.',
    brings: { crack: 2, warped: 1.4, soft: 0.8 },
  },
  {
    id: 'dried-one-side',
    words: 'Dried from one side',
    nextTime: 'On a rack, or turned every day; thick and thin parts dry together when it is covered.',
    brings: { warped: 1.8, crack: 0.9 },
  },
  {
    id: 'finished-damp',
    words: 'Finished while still damp',
    nextTime: 'Weigh it: paint at 5 % free water, seal at 1 %.',
    brings: { efflorescence: 2.4, stain: 1.4, streaks: 0.3 },
  },
  {
    id: 'additive',
    words: 'Too much of an additive',
    nextTime: 'Weigh additives on a fine scale; keep below what its line says.',
    brings: { efflorescence: 1.6, soft: 0.9, crack: 0.4 },
  },
  {
    id: 'measured-by-volume',
    words: 'Measured by volume',
    nextTime: 'Weigh the powder once: a scoop holds a quarter more or less by how it is filled.',
    brings: { 'soft': 0.9, 'short': 0.5, 'surface-bubbles': 0.4 },
  },
] as const satisfies readonly Cause[]

export type CauseId = typeof LIST[number]['id']
export const CAUSES: readonly (Cause & { readonly id: CauseId })[] = LIST
export const CAUSE_IDS = CAUSES.map(c => c.id) as unknown as readonly [CauseId, ...CauseId[]]
export const causeOf = (id: CauseId) => CAUSES.find(c => c.id === id)!
export const causeWords = (id: CauseId) => causeOf(id).words
