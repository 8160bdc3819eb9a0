import type { Sure } from './grounds'
import type { SettingProblem } from './hydration'
import type { Driving } from './flow'
import type { CastShape, MouldMaterial, SettingPlaceId, Surroundings } from './body'

/** What a mould is made of. */
export interface MaterialWords {
  readonly name: string
}

export const MATERIAL_WORDS: Readonly<Record<MouldMaterial, MaterialWords>> = {
  'silicone': {
    name: 'Silicone',
  },
  'polyurethane': {
    name: 'Polyurethane rubber',
  },
  'latex': {
    name: 'Latex',
  },
  'plastic': {
    name: 'Rigid plastic',
  },
  'plaster': {
    name: 'Plaster',
  },
  'clay': {
    name: 'Clay',
  },
  'wood': {
    name: 'Wood',
  },
  'metal': {
    name: 'Metal',
  },
  'glass': {
    name: 'Glass',
  },
  'soft-impression': {
    name: 'Soft one-use impression',
  },
  'ground': {
    name: 'Print in the ground',
  },
}

/** What the heat of a cast can get out of. */
interface CastShapeWords {
  readonly name: string
}

export const CAST_SHAPE_WORDS: Readonly<Record<CastShape, CastShapeWords>> = {
  'open-slab': {
    name: 'Open on top',
  },
  'closed-slab': {
    name: 'Closed, flat',
  },
  'rod': {
    name: 'Closed, long and round',
  },
  'ball': {
    name: 'Closed, as thick as wide',
  },
}

/** What is behind the mould. */
interface SurroundingWords {
  readonly name: string
}

export const SURROUNDING_WORDS: Readonly<Record<Surroundings, SurroundingWords>> = {
  air: {
    name: 'Air all round',
  },
  bench: {
    name: 'On a bench',
  },
  outdoors: {
    name: 'Outdoors, little wind',
  },
  wind: {
    name: 'Outdoors, in wind',
  },
  ground: {
    name: 'On damp ground',
  },
}

/** Where a cast is left to set. */
export const SETTING_PLACE_WORDS: Readonly<Record<SettingPlaceId, { readonly name: string }>> = {
  room: { name: 'In the room, air all round' },
  bench: { name: 'Flat on a bench' },
  roof: { name: 'Outside, under a roof' },
  sky: { name: 'Outside, open to the sky' },
  ground: { name: 'Outside, on damp ground' },
}

/** What drives bubbles out. */
interface DrivingWords {
  readonly name: string
}

export const DRIVING_WORDS: Readonly<Record<Driving, DrivingWords>> = {
  none: {
    name: 'Left alone',
  },
  tapped: {
    name: 'Tapped',
  },
  vibrated: {
    name: 'Vibrating table',
  },
}

/** Why a mix cannot be worked out at all. */
export const SETTING_PROBLEM_WORDS: Readonly<Record<SettingProblem, string>> = {
  'missing-number': 'A number is missing.',
  'no-water': 'A mix needs some water.',
  'no-thickness': 'Cast and mould wall have some thickness.',
  'negative': 'Times and amounts cannot be less than nothing.',
  'no-liquid-water': 'Plaster needs liquid water and a room that people can stand in.',
}

/** What stands behind a figure: how it is worked out, where that is from, and what would make it surer. */
export interface GroundWords {
  readonly how: string
  readonly source: string
  readonly narrow: string
}
export type GroundId = 'steps' | 'pour-by' | 'tap-until' | 'gloss' | 'warmest' | 'open' | 'dry' | 'ratio'
export const GROUND_WORDS: Readonly<Record<GroundId, GroundWords>> = {
  'steps': {
    how: 'Sifting takes 1.2 minutes for the first kilogram and grows with its power of 0.6; pouring a third of a minute for '
      + 'the first litre, and ten seconds a mould. Soak and stir are as you set them.',
    source: 'Common practice, no source; the forms between are guesses.',
    narrow: 'Mark your steps at the bench and see how far yours are from these.',
  },
  'pour-by': {
    how: 'Crystals grow on the seeds that stirring makes, faster as it warms; the mix counts as too stiff when its yield '
      + 'stress has grown two and a half times, to 25 Pa at least.',
    source: 'Rate law fitted to handbook set times of the class; the limit is an engineering guess.',
    narrow: 'A cup test of this bag, or a pour whose gloss you mark.',
  },
  'tap-until': {
    how: 'A knock moves the mix while its push is more than the yield stress; a bubble rises by Stokes in the part that '
      + 'flows, and cannot be larger than the cast is thick.',
    source: 'First principles; how hard a bench is knocked is an engineering guess.',
    narrow: 'A vibrating table, whose shake is known.',
  },
  'gloss': {
    how: 'The face loses its water film when enough gypsum has grown for the grains to lock: a yield stress of 20 000 Pa.',
    source: 'Jamming of grains, fitted to handbook set times of the class.',
    narrow: 'Mark it at the bench: the next pour from this bag knows.',
  },
  'warmest': {
    how: 'Setting frees heat as the crystals grow, and it leaves through face, mould and sides; the hottest place is told.',
    source: 'First principles; conduction known to a fifth, air films are engineering guesses.',
    narrow: 'A thermometer in one cast.',
  },
  'open': {
    how: 'A soft mould lets go at a third of the wet strength, a hard one at seven tenths and after the warmest; nine casts '
      + 'in ten are strong enough by then, and 15 % is added.',
    source: 'Strength by pores fitted to handbook figures; shares and margin are engineering guesses.',
    narrow: 'Say when you opened, and how it came out.',
  },
  'dry': {
    how: 'The wet face gives off what heat from the air can evaporate; once the face falls dry it slows, and it is '
      + 'dry enough when the share that its use needs is left.',
    source: 'Psychrometrics checked against a library; where the face falls dry is an engineering guess.',
    narrow: 'Weigh it twice, a day apart.',
  },
  'ratio': {
    how: 'Water over powder by weight; its range is what scale, jug and care leave open.',
    source: 'Rounding by first principles; care is an engineering guess.',
    narrow: 'A finer scale, or more powder at once.',
  },
}
export const SURE_WORDS: Readonly<Record<Sure, string>> = {
  well: 'Well known.', fairly: 'Fairly known: the range holds it eight times in ten.', roughly: 'Roughly known.',
}
