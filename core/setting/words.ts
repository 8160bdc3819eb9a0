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
