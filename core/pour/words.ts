import { formatTemperature, formatTemperatures } from '../units/format'
import type { Worded } from '../units/sentences'
import type { CauseId } from './causes'
import type { DefectId, TroubleId } from './defects'
import type { DryFor, DryingAdvice } from './drying'

/** What can go wrong on the bench, as it is told. */
interface TroubleWords {
  readonly words: string
}

export const TROUBLE_WORDS: Readonly<Record<TroubleId, TroubleWords>> = {
  'too-fast': {
    words: 'It sets too fast',
  },
  'too-thick': {
    words: 'Too thick to pour',
  },
  'too-thin': {
    words: 'Too thin',
  },
  'too-much': {
    words: 'Too much mixed',
  },
  'open-bubbles': {
    words: 'Bubbles on the open face',
  },
  'lost-count': {
    words: 'Lost count, or the scale went off',
  },
  'bag-torn': {
    words: 'The bag is torn',
  },
  'will-not-come-out': {
    words: 'It will not come out',
  },
  'ground-gives': {
    words: 'The ground gives way',
  },
  'will-not-set': {
    words: 'It will not set',
  },
  'lumps': {
    words: 'Lumps',
  },
  'leak': {
    words: 'It leaks',
  },
  'short': {
    words: 'Not enough mix',
  },
  'water-on-top': {
    words: 'Water stands on it',
  },
  'frozen-in': {
    words: 'The print is frozen in',
  },
  'on-skin': {
    words: 'It is on skin or in an eye',
  },
}

/** What can be wrong with a cast, and how to tell. */
export interface DefectWords {
  readonly words: string
  readonly looks: string
}

export const DEFECT_WORDS: Readonly<Record<DefectId, DefectWords>> = {
  'surface-bubbles': {
    words: 'Bubbles on the face',
    looks: 'Pinholes or round pits on the face that lay against the mould.',
  },
  'void': {
    words: 'Trapped air',
    looks: 'A missing corner or hollow where air could not leave.',
  },
  'soft': {
    words: 'Soft or chalky',
    looks: 'Rubs off, scratches with a nail long after set.',
  },
  'crack': {
    words: 'Crack',
    looks: 'A line right through or across.',
  },
  'broken-edge': {
    words: 'Broken in opening',
    looks: 'A thin part or an edge snapped off.',
  },
  'torn': {
    words: 'Torn detail',
    looks: 'Detail stayed behind in the mould.',
  },
  'stuck': {
    words: 'Stuck to the mould',
    looks: 'Had to be forced; skin or release came with it.',
  },
  'short': {
    words: 'Not filled',
    looks: 'The mix ran out or stiffened before the mould was full.',
  },
  'lumps': {
    words: 'Lumps',
    looks: 'Dry specks or lumps in the body.',
  },
  'layer-line': {
    words: 'Layer line',
    looks: 'Two coats did not knit; a line or a shell comes away.',
  },
  'streaks': {
    words: 'Streaks',
    looks: 'Prints of brush marks, release or uneven colour.',
  },
  'flash': {
    words: 'Flash or leak',
    looks: 'A fin along a seam; mix that crept out.',
  },
  'warped': {
    words: 'Warped',
    looks: 'Not flat or not true any more.',
  },
  'efflorescence': {
    words: 'White bloom',
    looks: 'Salts as a powdery bloom after drying.',
  },
  'stain': {
    words: 'Stain',
    looks: 'Colour from mould, release, rust or mildew.',
  },
}

/** Causes of defects, and what to do next time. Common practice, no source. */
export interface CauseWords {
  readonly words: string
  readonly nextTime: Worded
}

export const CAUSE_WORDS: Readonly<Record<CauseId, CauseWords>> = {
  'too-thin': {
    words: 'Mixed too thin',
    nextTime:
      'Weigh both, and read the scale with the bucket level; powder brings a thin mix back only before it is stirred.',
  },
  'too-thick': {
    words: 'Mixed too thick',
    nextTime: 'Take the planned water; what is over in powder asks for more water before it is stirred.',
  },
  'stirred-long': {
    words: 'Stirred too long',
    nextTime: 'Stop as soon as it coats a glove; a longer soak needs less stirring.',
  },
  'stirred-little': {
    words: 'Stirred too little',
    nextTime: 'Feel along the wall and the bottom until no lump is left.',
  },
  'soak-short': {
    words: 'Soaked too short',
    nextTime: 'Leave it for the whole soak, hands off: it saves stirring and bubbles.',
  },
  'poured-late': {
    words: 'Poured after it had begun to stiffen',
    nextTime: 'Fewer moulds to a bucket, colder water, or two people; thinnest detail first.',
  },
  'opened-early': {
    words: 'Opened too early',
    nextTime: 'Wait until it is past its warmest; a thin piece until it has cooled.',
  },
  'cold': {
    words: 'Too cold to set in its time',
    nextTime: p => `Bring water, powder and mould to ${formatTemperatures(18, 22, p)}, or wait twice as long.`,
  },
  'hot-water': {
    words: 'Water too warm',
    nextTime: 'Cold or room water: warm water makes lumps and takes the time to pour.',
  },
  'old-powder': {
    words: 'Old or damp powder',
    nextTime: 'A cup test before the next pour; open a fresh bag, and keep it shut and dry.',
  },
  'release-missing': {
    words: 'Too little release',
    nextTime: 'Work the release into every corner and buff it; bare plaster bonds to plaster.',
  },
  'release-much': {
    words: 'Release laid on too thick',
    nextTime: 'A very thin film, brushed out; wipe the pool out of the corners.',
  },
  'worn-mould': {
    words: 'Worn or torn mould',
    nextTime: 'Mend or recast the mould; look at the seam and the tear-stops before each pour.',
  },
  'seam-open': {
    words: 'Halves not tight',
    nextTime: 'Tape or strap the halves without stretch, plug the seam with clay, look once more when it is full.',
  },
  'thin-part': {
    words: 'A thin part without time or talc',
    nextTime: 'Talc in the tips, a first coat by brush, and open by bending the mould away, not the cast.',
  },
  'air-shut-in': {
    words: 'Air could not leave',
    nextTime: 'A little first, tilt and tap, then the rest; a vent at the highest place that stays hollow.',
  },
  'too-little': {
    words: 'Too little mix',
    nextTime: 'Measure the mould again and keep a spare of 6 to 10 %; an overflow mould takes what is left.',
  },
  'coat-late': {
    words: 'The coat before had set',
    nextTime: 'Next coat before the gloss goes, or score, wet and coat it thinly first.',
  },
  'dried-hot': {
    words: 'Dried too warm or in the sun',
    nextTime: p => `Moving air, no sun, never above ${formatTemperature(45, p)}.`,
  },
  'dried-one-side': {
    words: 'Dried from one side',
    nextTime: 'On a rack, or turned every day; thick and thin parts dry together when it is covered.',
  },
  'finished-damp': {
    words: 'Finished while still damp',
    nextTime: 'Weigh it: paint at 5 % free water, seal at 1 %.',
  },
  'additive': {
    words: 'Too much of an additive',
    nextTime: 'Weigh additives on a fine scale; keep below what its line says.',
  },
  'measured-by-volume': {
    words: 'Measured by volume',
    nextTime: 'Weigh the powder once: a scoop holds a quarter more or less by how it is filled.',
  },
}

/** What a piece can be used for once it is so dry. */
export const DRY_FOR_WORDS: Readonly<Record<DryFor, string>> = {
  handle: 'Handling',
  paint: 'Paint that breathes',
  clay: 'Clay, as a pottery mould',
  seal: 'Sealer, oil, anything tight',
  heat: 'Heat, bone dry',
}

/** The one thing worth doing with a drying cast. */
export const DRYING_ADVICE_WORDS: Readonly<Record<Exclude<DryingAdvice, 'not-drying'>, Worded>> = {
  'wet-again': 'Wet it again; look for mildew',
  'out-of-sun': 'Move it out of the sun: one side dries first and it cracks or warps',
  'frost': 'Frost by night cracks it while it is full of water: bring it in',
  'too-warm': p => `Too warm: not above ${formatTemperature(45, p)}, or dry edges turn to powder`,
  'unwrap': 'Wrapped it does not dry: unwrap it',
  'steady-not-dry': 'Steady but not dry: bring it somewhere warm and dry',
  'out-of-mould': 'Take it out: one face dries half as fast',
  'turn': 'Turn it, or put it on a rack',
}
