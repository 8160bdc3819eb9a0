import type { Celsius, Metres, Seconds, WaterRatio } from '../units/quantity'
import { foamOf, seedsOf, speedDoubt, speedOf, type Addition } from '../gypsum/additions'
import type { Body, CastShape, MouldMaterial, Surroundings } from './body'
import { wetStrength, type SetSolid } from './hardening'
import { CP, HEAT, HEAT_SLOPE, stirredSeeds, tailCorrection, type TailExponent } from './kinetics'
import {
  CHEMICAL_WATER,
  DENSITY,
  GYPSUM_YIELD,
  powderSpecificVolume,
  solveMix,
  waterDensity,
  type Mix,
} from '../gypsum/mix'
import { grainsIn, pasteOf, type Grains, type Paste } from '../gypsum/paste'
import type { PowderClass } from '../gypsum/powders'
import { freshMix, type FreshMix } from './flow'
import { stirredAir, turnsOf, type Stirring } from '../gypsum/stirring'

/** A mix that is about to set: what is known of it, why it cannot be worked out, its constants (docs/model.md). */

export interface SettingInput {
  readonly powder: PowderClass
  readonly ratio: WaterRatio
  readonly waterTemperature: Celsius
  readonly roomTemperature: Celsius
  readonly stir: Stirring
  /** When stirring begins, after powder met water; stirred at once unless said. */
  readonly stirFrom?: Seconds
  /** Thickness of the cast from open face to mould, or from mould to mould. */
  readonly section: Metres
  readonly mould: MouldMaterial
  readonly wall?: Metres
  readonly shape?: CastShape
  /** Width and length of a slab, where it has an end. */
  readonly across?: readonly [Metres, Metres]
  readonly behind?: Surroundings
  /** Temperature of the ground where that is what the cast lies on. */
  readonly ground?: Celsius
  /** Relative humidity of the air, 0 to 1. */
  readonly humidity?: number
  /** Sun on an open face, W/m2. */
  readonly sun?: number
  readonly additions?: readonly Addition[]
  /** Share of old set plaster left in the bucket, by mass of powder. */
  readonly dirt?: number
  /** Heat that the bucket takes up, J/K by kilogram of powder; nothing unless said. */
  readonly bucket?: number
}

/** What scatters from pour to pour; multipliers of the class's own constants except where said. */
export interface Scatter {
  readonly rate: number
  readonly seeds: number
  readonly tail?: TailExponent
  readonly jamming?: number
  readonly conductivity?: number
  /** Standard normal number that moves the effect of accelerators and retarders within its doubt. */
  readonly effect?: number
  /** Exponent of what grains leave of the strength. */
  readonly bond?: number
  /** Multiplier of the strength at which a needle no longer marks it. */
  readonly needle?: number
}
export const CENTRE: Scatter = { rate: 1, seeds: 1 }

const USUAL_HUMIDITY = 0.5
/** Constants of one mix that the integration, the milestones and the hardening share. */
export interface SettingMix {
  readonly paste: Paste
  readonly grains: Grains
  readonly solid: SetSolid
  /** By kilogram of plaster. */
  readonly amounts: Mix
  readonly fresh: FreshMix
  /** Rate at 21 degC, 1/s. */
  readonly k: number
  readonly seedsAt: (t: Seconds) => number
  readonly alphaMax: number
  readonly alphaSet: number
  readonly tail: TailExponent
  readonly purity: number
  /** J per kg hemihydrate at 25 degC; J/(kg K) of everything that goes with one kilogram of plaster, unreacted. */
  readonly heat: number
  readonly capacity: number
  /** kg of plaster in one m3 of mix. */
  readonly powderPerVolume: number
  readonly start: Celsius
  /** Wet strength when fully hydrated, MPa. */
  readonly strength: number
}

/** Why a mix cannot be worked out at all. */
export type SettingProblem = 'missing-number' | 'no-water' | 'no-thickness' | 'negative' | 'no-liquid-water'

/** What keeps this mix from being worked out; undefined when nothing does. */
export function settingProblem(input: SettingInput): SettingProblem | undefined {
  const numbers = [
    input.ratio,
    input.waterTemperature,
    input.roomTemperature,
    input.stir.minutes,
    input.section,
    input.stirFrom ?? 0,
    input.dirt ?? 0,
    input.humidity ?? 0.5,
    input.sun ?? 0,
    input.ground ?? 0,
    input.wall ?? 0.01,
    ...(input.additions ?? []).map(a => a.share),
  ]
  if (!numbers.every(Number.isFinite)) return 'missing-number'
  if (!(input.ratio > 0)) return 'no-water'
  if (!(input.section > 0) || (input.wall !== undefined && !(input.wall > 0)))
    return 'no-thickness'
  if (
    input.stir.minutes < 0 || (input.stirFrom ?? 0) < 0 || (input.dirt ?? 0) < 0
    || (input.additions ?? []).some(a => a.share < 0)
  ) return 'negative'
  if (
    !(input.waterTemperature > -30 && input.waterTemperature < 110 && input.roomTemperature > -40
      && input.roomTemperature < 80)
  ) return 'no-liquid-water'
  return undefined
}

/** Nucleation on grains below 75 um: the rate is 1 + .87 f times (0 to 1.2; lands the 1:1 class on its set time). */
const ON_GRAINS = 0.87
/** Seeds that a share of old set plaster brings (engineering guess). */
const DIRT_SEEDS = 2

/** Seeds at a moment: those that are there, and those that stirring makes as it goes on. */
function seedsOver(input: SettingInput, scatter: Scatter): (t: Seconds) => number {
  const brought = seedsOf(input.additions ?? []) + DIRT_SEEDS * (input.dirt ?? 0)
  const stirFrom = input.stirFrom ?? 0, stirFor = input.stir.minutes * 60, turns = turnsOf(input.stir)
  const unstirred = scatter.seeds * stirredSeeds(0) + brought, stirred = scatter.seeds * stirredSeeds(turns) + brought
  return t =>
    t <= stirFrom
      ? unstirred
      : t >= stirFrom + stirFor
        ? stirred
        : scatter.seeds * stirredSeeds(turns * (t - stirFrom) / stirFor) + brought
}

/**
 * Where powder, water, fillers and bucket come to, before anything reacts. First principles; wetting adds up to 1 K
 * (from memory), which is within the range of temperature.
 */
function startTemperature(input: SettingInput, paste: Paste, solids: number, water: number): Celsius {
  const bucket = (input.bucket ?? 0) * paste.powder, cool = solids + bucket
  return (cool * input.roomTemperature + water * input.waterTemperature) / (cool + water)
}

/** J/(kg K) of the solids that go with one kilogram of plaster, unreacted. */
function solidsCapacity({ plaster: { purity }, additions }: Paste): number {
  return purity * CP.hemihydrate + (1 - purity) * CP.inert + CP.inert * additions.reduce((sum, a) => sum + a.share, 0)
}

/** What the mix is when set: pores of its paste, and grains in it. */
function solidOf({ plaster }: Paste, amounts: Mix, grains: Grains): SetSolid {
  const { purity, inertDensity } = plaster
  const solid = purity * GYPSUM_YIELD / DENSITY.gypsum + (1 - purity) / inertDensity
  return { porosity: 1 - solid / (amounts.slurry - grains.volume), grains: grains.volume / amounts.slurry }
}

/**
 * Degree of hydration at which the gloss goes: grains jam (each gypsum unit takes 1.75 times the room of the powder it
 * replaces) or needles span the paste between coarse grains.
 */
function lostGloss({ paste: { plaster }, fresh, amounts, grains, w }: PouredPaste, t: Celsius): number {
  const { purity } = plaster, solids = powderSpecificVolume(plaster) + grains.fineVolume
  const phi = solids / (solids + w / waterDensity(t))
  const jammed = Math.max(0.03, (fresh.jam / phi - 1) / (0.75 * purity / (1 + grains.fine)))
  const gypsum = purity * GYPSUM_YIELD / DENSITY.gypsum / (amounts.slurry - grains.coarseVolume)
  const spanned = 0.22 / gypsum
  return (jammed ** -3 + spanned ** -3) ** (-1 / 3)
}

interface PouredPaste {
  readonly paste: Paste
  /** By kilogram of plaster. */
  readonly amounts: Mix
  readonly grains: Grains
  readonly fresh: FreshMix
  /** Water that can react, per plaster. */
  readonly w: number
}

/** The paste of an input, its amounts, and how it flows. */
function pastePoured(input: SettingInput, jamming?: number): PouredPaste {
  const paste = pasteOf(input.powder, input.ratio, input.additions), { plaster, additions } = paste
  const amounts = solveMix({
    powder: plaster, ratio: paste.ratio, waterTemperature: input.waterTemperature, additions,
    air: stirredAir(input.stir.tool, plaster.handAir) + foamOf(additions),
  }, { what: 'powder', amount: 1 })
  const least = plaster.purity * CHEMICAL_WATER * 0.5, grains = grainsIn(paste)
  const w = Math.max(amounts.effectiveRatio + grains.film, least)
  const fibre = additions.find(a => a.id === 'glass-fibre')?.share ?? 0
  const fibreVolume = 100 * fibre / 2550 / amounts.slurry
  const fresh = freshMix(
    plaster, Math.max(amounts.effectiveRatio, least), input.waterTemperature, amounts.slurryDensity,
    { fineVolume: grains.fineVolume, coarseShare: grains.coarseVolume / amounts.slurry },
    1 + 5 * fibreVolume, jamming,
  )
  return { paste, amounts, grains, fresh, w }
}

/** Constants of a setting mix. @throws RangeError with the code of `settingProblem`. */
export function settingMix(input: SettingInput, scatter: Scatter = CENTRE): SettingMix {
  const problem = settingProblem(input)
  if (problem) throw new RangeError(problem)
  const poured = pastePoured(input, scatter.jamming), { paste, amounts, grains, fresh, w } = poured
  const { plaster, additions } = paste, { purity } = plaster
  const alphaMax = Math.min(1, w / (purity * CHEMICAL_WATER))
  const alphaSet = Math.min(0.95 * alphaMax, lostGloss(poured, input.waterTemperature))
  const solids = solidsCapacity(paste), water = CP.water * paste.ratio
  const tail = scatter.tail ?? 1, dirt = (input.dirt ?? 0) * paste.powder
  const seedsAt = seedsOver({ ...input, additions, dirt }, scatter)
  const speed = Math.exp(Math.log(speedOf(additions)) * (1 + speedDoubt(additions) * (scatter.effect ?? 0)))
  const solid = solidOf(paste, amounts, grains)
  return {
    paste,
    grains,
    solid,
    amounts,
    fresh,
    alphaMax,
    alphaSet,
    tail,
    purity,
    seedsAt,
    k: plaster.rate / 60 * scatter.rate * speed * (plaster.ratio.recommended / w) ** 0.75
      * (1 + ON_GRAINS * grains.fine) * tailCorrection(tail, seedsAt(Infinity), alphaSet, alphaMax),
    heat: HEAT[plaster.crystal],
    capacity: solids + water,
    powderPerVolume: 1 / amounts.slurry,
    start: startTemperature(input, paste, solids, water),
    strength: wetStrength(plaster, solid, scatter.bond),
  }
}

/** The body that a setting input describes; prints lie on the ground, everything else stands in air unless said. */
export function bodyOf(input: SettingInput): Body {
  return {
    shape: input.shape ?? 'open-slab',
    across: input.across,
    section: input.section,
    mould: input.mould,
    wall: input.wall,
    behind: input.behind ?? (input.mould === 'ground' ? 'ground' : 'air'),
    air: input.roomTemperature,
    ground: input.ground,
    humidity: input.humidity ?? USUAL_HUMIDITY,
    sun: input.sun,
  }
}

/**
 * Temperature rise if no heat left the cast at all, K: the ceiling for a very thick piece. First principles.
 * @param start where the mix begins: `settingMix(input).start`
 */
export function adiabaticRise(input: Pick<SettingInput, 'powder' | 'ratio' | 'additions'>, start: Celsius): number {
  const paste = pasteOf(input.powder, input.ratio, input.additions), { purity, crystal } = paste.plaster
  const alphaMax = Math.min(1, paste.ratio / (purity * CHEMICAL_WATER))
  const heat = purity * alphaMax * (HEAT[crystal] + HEAT_SLOPE * (start - 25))
  return heat / (solidsCapacity(paste) + CP.water * paste.ratio - purity * HEAT_SLOPE * alphaMax)
}

/** How the fresh mix behaves before any setting: whether it flows at all, and its yield stress in Pa. */
export function freshStiffness(
  powder: PowderClass,
  ratio: WaterRatio,
  additions: readonly Addition[],
): { readonly flows: boolean, readonly yieldStress: number } {
  if (!(ratio > 0)) return { flows: false, yieldStress: Infinity }
  const { amounts, fresh } = pastePoured({ ...HANDY, powder, ratio, additions })
  if (amounts.effectiveRatio <= 0) return { flows: false, yieldStress: Infinity }
  return { flows: fresh.phi < fresh.jam, yieldStress: fresh.yieldStress }
}
/** What a mix is like by itself, before it is poured anywhere. */
const HANDY = {
  waterTemperature: 20, roomTemperature: 20, stir: { tool: 'hand', minutes: 1 }, section: 0.02, mould: 'plastic',
} as const
