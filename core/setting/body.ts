import { saturationPressure } from '../numeric/vapour'
import type { Celsius, Metres } from '../units/quantity'
import { withWords } from '../units/sentences'
import { CAST_SHAPE_WORDS, MATERIAL_WORDS, SETTING_PLACE_WORDS, SURROUNDING_WORDS, type MaterialWords } from './words'

/** The cast as a body that holds and loses heat: its shape, the mould around it and what that stands on. */

export type MouldMaterial
  = | 'silicone'
    | 'polyurethane'
    | 'latex'
    | 'plastic'
    | 'plaster'
    | 'clay'
    | 'wood'
    | 'metal'
    | 'glass'
    | 'soft-impression'
    | 'tray-impression'
    | 'thermoplastic'
    | 'ground'

interface MaterialFacts extends MaterialWords {
  readonly flexible: boolean
  /** W/(m K), and J/(m3 K). */
  readonly conductivity: number
  readonly heatCapacity: number
  readonly usualWall: Metres
}

/**
 * Mould materials. Conductivity and heat capacity: handbook values from memory, rounded; usual walls: common practice.
 */
const MATERIAL_FACTS: Readonly<Record<MouldMaterial, Omit<MaterialFacts, keyof MaterialWords>>> = {
  'silicone': { flexible: true, conductivity: 0.2, heatCapacity: 1.5e6, usualWall: 0.010 },
  'polyurethane': {
    flexible: true,
    conductivity: 0.2,
    heatCapacity: 1.9e6,
    usualWall: 0.010,
  },
  'latex': { flexible: true, conductivity: 0.15, heatCapacity: 1.8e6, usualWall: 0.003 },
  'plastic': { flexible: false, conductivity: 0.2, heatCapacity: 1.7e6, usualWall: 0.001 },
  'plaster': { flexible: false, conductivity: 0.5, heatCapacity: 1.67e6, usualWall: 0.030 },
  'clay': { flexible: true, conductivity: 1.2, heatCapacity: 2.8e6, usualWall: 0.030 },
  'wood': { flexible: false, conductivity: 0.13, heatCapacity: 0.8e6, usualWall: 0.020 },
  'metal': { flexible: false, conductivity: 50, heatCapacity: 3.6e6, usualWall: 0.001 },
  'glass': { flexible: false, conductivity: 1, heatCapacity: 2.1e6, usualWall: 0.004 },
  'soft-impression': {
    flexible: true,
    conductivity: 0.55,
    heatCapacity: 3.9e6,
    usualWall: 0.025,
  },
  'tray-impression': { flexible: true, conductivity: 0.3, heatCapacity: 1.8e6, usualWall: 0.006 },
  'thermoplastic': { flexible: true, conductivity: 0.2, heatCapacity: 1.9e6, usualWall: 0.004 },
  'ground': { flexible: true, conductivity: 1.3, heatCapacity: 2.5e6, usualWall: 0.030 },
}

export const MOULD_MATERIALS: Readonly<Record<MouldMaterial, MaterialFacts>> = withWords(MATERIAL_FACTS, MATERIAL_WORDS)

/** What the cast's heat can get out of: open on top, closed between two walls, or round and closed. */
export type CastShape = 'open-slab' | 'closed-slab' | 'rod' | 'ball'

const SHAPE_FACTS: Readonly<Record<CastShape, { readonly power: 0 | 1 | 2 }>> = {
  'open-slab': { power: 0 },
  'closed-slab': { power: 0 },
  'rod': { power: 1 },
  'ball': { power: 2 },
}

export const CAST_SHAPES = withWords(SHAPE_FACTS, CAST_SHAPE_WORDS)

/**
 * What is behind the mould, and how the air moves over an open face. Films in W/(m2 K): engineering guesses of natural
 * convection with
 * radiation, of contact, of a light wind, of wind, of damp soil.
 */
const SURROUNDING_FACTS = {
  air: { film: 8, convection: 4 },
  bench: { film: 5, convection: 4 },
  outdoors: { film: 12, convection: 7 },
  wind: { film: 20, convection: 16 },
  ground: { film: 22, convection: 4 },
} as const

export const SURROUNDINGS = withWords(SURROUNDING_FACTS, SURROUNDING_WORDS)
export type Surroundings = keyof typeof SURROUNDING_FACTS

/** Where a cast is left to set, what is behind its mould there, and whether the sky looks on it. */
const SETTING_PLACE_FACTS = {
  room: { behind: 'air', open: false },
  bench: { behind: 'bench', open: false },
  roof: { behind: 'outdoors', open: false },
  sky: { behind: 'outdoors', open: true },
  ground: { behind: 'ground', open: true },
} as const satisfies Record<string, { readonly behind: Surroundings, readonly open: boolean }>
export type SettingPlaceId = keyof typeof SETTING_PLACE_FACTS
const settingPlaces = withWords(SETTING_PLACE_FACTS, SETTING_PLACE_WORDS)
export const SETTING_PLACES = (Object.keys(SETTING_PLACE_FACTS) as SettingPlaceId[]).map(id =>
  ({ id, ...settingPlaces[id] }),
)
export const settingPlace = (id: SettingPlaceId) => SETTING_PLACES.find(p => p.id === id)!

export interface Body {
  readonly shape: CastShape
  /** Thickness right through: from open face to mould, or from mould to mould. */
  readonly section: Metres
  readonly mould: MouldMaterial
  /** Thickness of the mould's wall; what is usual for the material when it is not known. */
  readonly wall?: Metres
  /** How wide and how long a slab is; without end when nobody says. */
  readonly across?: readonly [Metres, Metres]
  readonly behind: Surroundings
  /** Air temperature, and the temperature of what is behind the mould where that is not the air. */
  readonly air: Celsius
  readonly ground?: Celsius
  /** Relative humidity of the air, 0 to 1. */
  readonly humidity: number
  /** Sun on its open face, W/m2; none unless said. */
  readonly sun?: number
}

/** Heat conduction through a wet cast, W/(m K); engineering guess, good to a quarter. */
export const CONDUCTIVITY = 0.75
const RADIATION = 4
/** Share of the sun that wet white plaster takes up (engineering guess). */
const ABSORBED = 0.35
/** The convective film carries the vapour too; divided by 66 Pa/K it gives W/(m2 Pa) (Lewis relation at sea level). */
const LEWIS = 66

/** Shells of one body, per square metre of mould face (slabs), per radian and metre (rods) or per steradian (balls). */
export interface Shells {
  readonly cells: number
  /** m3, and W/K from each shell to the next one out. */
  readonly volume: Float64Array
  readonly link: Float64Array
  /** W/K from the innermost shell's middle to the open face; 0 when there is none. */
  readonly toFace: number
  /**
   * W/K from the outermost shell to the middle of the mould's wall, from there to what is behind, and J/K of the wall.
   */
  readonly toWall: number
  readonly wallOut: number
  readonly wallCapacity: number
  readonly behind: Celsius
  /** What the outside of the wall is above that, as a share of what its middle is. */
  readonly touched: number
  /** W/K from each cubic metre to the air through the sides of a slab that ends somewhere. */
  readonly aside: number
  /** Its middle is warmer than the mean over its width by this share of what that is above the air. */
  readonly middle: number
}

/**
 * Heat that a slab loses through its four sides: from the mean over its width, a sixth of the way through it, through
 * wall and film; its middle is a twelfth of the way warmer than that mean. First principles of a uniform source; what
 * the side walls store is left out.
 */
function throughSides(body: Body, wall: Metres, conductivity: number): Pick<Shells, 'aside' | 'middle'> {
  const outward = wall / MOULD_MATERIALS[body.mould].conductivity + 1 / SURROUNDINGS[body.behind].film
  const sides = (body.across ?? []).map(side => ({ side, through: 1 / (side / (6 * conductivity) + outward) }))
  return {
    aside: sides.reduce((sum, { side, through }) => sum + 2 * through / side, 0),
    middle: sides.reduce((sum, { side, through }) => sum + through * side / (12 * conductivity), 0),
  }
}

/** @param cells number of shells of equal thickness; @param conductivity of the cast. */
export function shellsOf(body: Body, cells: number, conductivity = CONDUCTIVITY): Shells {
  const { power } = CAST_SHAPES[body.shape]
  const open = body.shape === 'open-slab'
  const depth = open ? body.section : body.section / 2
  const dx = depth / cells
  const area = (x: number) => power === 0 ? 1 : x ** power
  const upTo = (x: number) => x ** (power + 1) / (power + 1)
  const volume = Float64Array.from({ length: cells }, (_, i) => upTo((i + 1) * dx) - upTo(i * dx))
  const link = Float64Array.from({ length: cells - 1 }, (_, i) => conductivity * area((i + 1) * dx) / dx)
  const material = MOULD_MATERIALS[body.mould]
  const wall = body.wall ?? material.usualWall
  const halfWall = wall / 2 / material.conductivity
  const outside = area(depth)
  return {
    cells, volume, link,
    toFace: open ? 2 * conductivity / dx : 0,
    toWall: outside / (dx / 2 / conductivity + halfWall),
    wallOut: outside / (halfWall + 1 / SURROUNDINGS[body.behind].film),
    wallCapacity: outside * wall * material.heatCapacity,
    behind: body.behind === 'ground' ? body.ground ?? body.air : body.air,
    touched: 1 / (1 + halfWall * SURROUNDINGS[body.behind].film),
    ...power === 0 ? throughSides(body, wall, conductivity) : { aside: 0, middle: 0 },
  }
}

/**
 * Heat leaving an open wet face at temperature `t`, W/m2, and its slope, W/(m2 K): still air, radiation and
 * evaporation.
 */
export function openFaceFlux(body: Body, t: Celsius): { readonly flux: number, readonly slope: number } {
  const p = saturationPressure(t)
  const { convection } = SURROUNDINGS[body.behind]
  const film = convection + RADIATION, warmed = ABSORBED * (body.sun ?? 0), evaporation = convection / LEWIS
  return {
    flux: film * (t - body.air) - warmed + evaporation * (p - body.humidity * saturationPressure(body.air)),
    slope: film + evaporation * p * 17.625 * 243.04 / (t + 243.04) ** 2,
  }
}
