import type { Celsius, Metres, Seconds, WaterRatio } from '../units/quantity'
import { CHEMICAL_WATER, GYPSUM_YIELD, powderSpecificVolume, solveMix, waterDensity, DENSITY, type Addition } from './mix'
import type { PowderClass } from './powders'

/** Stirring tools and how many spatula turns a minute each is worth (engineering guess, fitted only between 20 and 200 turns). */
export const STIR_TOOLS = {
  'spatula': { name: 'Spatula', turnsPerMinute: 110 },
  'hand': { name: 'Hand', turnsPerMinute: 60 },
  'whisk': { name: 'Whisk', turnsPerMinute: 60 },
  'drill': { name: 'Drill paddle', turnsPerMinute: 120 },
  'kneaded-bag': { name: 'Kneaded bag', turnsPerMinute: 40 },
  'vacuum-mixer': { name: 'Vacuum mixer', turnsPerMinute: 350 },
} as const
export type StirTool = keyof typeof STIR_TOOLS

export type MouldMaterial = 'silicone' | 'polyurethane' | 'latex' | 'plastic' | 'plaster' | 'clay' | 'wood' | 'metal' | 'glass' | 'soft-impression' | 'ground'

interface MaterialFacts { readonly name: string, readonly flexible: boolean, /** m2 K/W of a usual wall */ readonly resistance: number, readonly release: string }

/** Mould materials. Thermal resistances: handbook conductivities from memory over usual thicknesses; release: common practice. */
export const MOULD_MATERIALS: Readonly<Record<MouldMaterial, MaterialFacts>> = {
  'silicone': { name: 'Silicone', flexible: true, resistance: 0.05, release: 'No release needed.' },
  'polyurethane': { name: 'Polyurethane rubber', flexible: true, resistance: 0.05, release: 'Usually none; always with polymer-modified gypsum.' },
  'latex': { name: 'Latex', flexible: true, resistance: 0.02, release: 'Dust with talc as you peel it.' },
  'plastic': { name: 'Rigid plastic', flexible: false, resistance: 0.005, release: 'A very thin, even film of petroleum jelly or spray; every streak prints.' },
  'plaster': { name: 'Plaster', flexible: false, resistance: 0.06, release: 'Soap or grease it, or plaster will bond to plaster.' },
  'clay': { name: 'Clay', flexible: true, resistance: 0.03, release: 'No release needed; take the clay out soon after set.' },
  'wood': { name: 'Wood', flexible: false, resistance: 0.15, release: 'Seal it, then a thin film of release.' },
  'metal': { name: 'Metal', flexible: false, resistance: 0, release: 'A very thin, even film of release.' },
  'glass': { name: 'Glass', flexible: false, resistance: 0.004, release: 'A very thin, even film; glass holds by suction, so mind the shards.' },
  'soft-impression': { name: 'Soft one-use impression', flexible: true, resistance: 0.03, release: 'None. Pour the same day, before it dries and shrinks.' },
  'ground': { name: 'Print in the ground', flexible: true, resistance: 0.02, release: 'None; lift it with its soil.' },
}

export interface SettingInput {
  readonly powder: PowderClass
  readonly ratio: WaterRatio
  readonly waterTemperature: Celsius
  readonly roomTemperature: Celsius
  readonly stir: { readonly tool: StirTool, readonly minutes: number }
  /** Thickness of the cast from open face to mould wall. */
  readonly section: Metres
  readonly mould: MouldMaterial
  readonly additions?: readonly Addition[]
  /** Share of old set plaster left in the bucket, by mass of powder. */
  readonly dirt?: number
}

/** What scatters from pour to pour; multipliers of the class's own constants. */
export interface Scatter { readonly rate: number, readonly seeds: number }

/** Moments of one cast in seconds after powder meets water; Infinity when the mix never gets there within twelve hours. */
export interface SettingMoments {
  readonly pourBy: Seconds
  readonly webbing: Seconds
  readonly glossGone: Seconds
  readonly finalSet: Seconds
  readonly openFlexible: Seconds
  readonly openRigid: Seconds
  readonly openThin: Seconds
  readonly warmest: Seconds
  readonly warmestTemperature: Celsius
  readonly coolAgain: Seconds
}

export interface SettingCurve {
  /** Seconds after wetting, core temperature in degC, degree of hydration and yield stress in Pa (capped at 20 kPa), sample by sample. */
  readonly time: readonly number[]
  readonly temperature: readonly number[]
  readonly hydration: readonly number[]
  readonly stiffness: readonly number[]
}

const GAS = 8.314462618
const ACTIVATION = 60_000
const HEAT = { alpha: 118.1e3, beta: 132.5e3 } as const // J per kg hemihydrate at 25 degC, from standard enthalpies of formation
const HEAT_SLOPE = 320.5 // J/(kg K), Kirchhoff
const CP_HEMIHYDRATE = 823, CP_WATER = 4182, CP_INERT = 740
const CONDUCTIVITY = 0.75 // W/(m K), wet cast, engineering guess +-25 %
const FILM = 8, EVAPORATIVE_FILM = 4
const GLOSS_YIELD = 20_000
const SEEDS = 0.0052
const LONGEST = 12 * 3600

/** Solubility gap between hemihydrate and gypsum, g CaSO4 per litre; it drives the reaction and closes at 100 degC. */
function solubilityGap(t: Celsius): number {
  const hemihydrate = 10 * Math.exp(-0.018202 * t)
  const x = (t - 40) / 60
  const gypsum = t <= 40 ? 2.10 - 0.34 * ((t - 40) / 40) ** 2 : 2.10 - 0.48 * x * x * (1.3 - 0.3 * x)
  return Math.max(0, hemihydrate - gypsum)
}

/**
 * Speed of hydration against 21 degC. Fastest near 36 degC, none at 100 degC.
 * Arrhenius rate times a power of the solubility gap; exponents fitted, see docs/model.md.
 */
export function temperatureFactor(t: Celsius): number {
  if (t >= 100) return 0
  const kelvin = t + 273.15
  return Math.exp(-(ACTIVATION / GAS) * (1 / kelvin - 1 / 294.15)) * (solubilityGap(t) / solubilityGap(21)) ** 2.42
}

const TABLE_STEP = 0.25
const TABLE = Float64Array.from({ length: 4 * 110 }, (_, i) => temperatureFactor(i * TABLE_STEP))
function fastTemperatureFactor(t: Celsius): number {
  const x = Math.max(0, Math.min(TABLE.length - 1.001, t / TABLE_STEP))
  const i = Math.floor(x)
  return TABLE[i]! + (TABLE[i + 1]! - TABLE[i]!) * (x - i)
}

/** Seed share that stirring makes; n in equivalent spatula turns, without effect beyond 400. Fitted to tables between 20 and 200 turns. */
export function stirredSeeds(turns: number): number {
  return SEEDS * ((1 + Math.min(turns, 400) / 300) / (1 + 100 / 300)) ** 4.49
}

/**
 * Time to reach a degree of hydration at one constant temperature.
 * @param k rate 1/s at that temperature; @param s seed share; @param alpha 0..1.
 * Closed form of d alpha/dt = k (s + alpha)(1 - alpha).
 */
export function isothermalTime(k: number, s: number, alpha: number): Seconds {
  return Math.log((alpha + s) / (s * (1 - alpha))) / (k * (1 + s))
}

/** Constants of one mix that the integration and the milestones share. */
interface Constants {
  k: number
  seeds: number
  alphaMax: number
  alphaSet: number
  freshYield: number
  start: Celsius
  ambient: Celsius
  /** MPa, fully hydrated and wet. */
  wetStrength: number
  heatCapacity: (alpha: number) => number
  loss: (mean: Celsius) => number
  core: (mean: Celsius) => Celsius
}

/** Solid volume fraction and yield stress (Pa, within 0.5 to 2000) of the mix before it reacts; granular jamming form, fitted to practice. */
function freshMix(powder: PowderClass, ratio: WaterRatio, t: Celsius): { phi: number, yieldStress: number } {
  const grains = powderSpecificVolume(powder)
  const phi = grains / (grains + ratio / waterDensity(t))
  const gap = Math.max(0.004, powder.jammingFraction - phi)
  return { phi, yieldStress: Math.min(2000, Math.max(0.5, powder.yieldScale * phi * Math.max(0.02, phi - 0.15) ** 2 / (powder.jammingFraction * gap))) }
}

function constantsOf(input: SettingInput, scatter: Scatter): Constants {
  const { powder, waterTemperature, roomTemperature } = input
  const mix = solveMix({ powder, ratio: input.ratio, waterTemperature, additions: input.additions }, { what: 'powder', amount: 1 })
  const w = Math.max(mix.effectiveRatio, powder.purity * CHEMICAL_WATER * 0.5)
  const { purity } = powder
  const alphaMax = Math.min(1, w / (purity * CHEMICAL_WATER))
  const { phi: phi0, yieldStress: freshYield } = freshMix(powder, w, waterTemperature)
  const jam = powder.jammingFraction
  // Gloss goes when grains jam (each gypsum unit takes 1.75 times the room of the powder it replaces) or needles span the mix.
  const x = Math.max(0.03, (jam / phi0 - 1) / (0.75 * purity))
  const slurryPerKg = mix.slurry
  const y = 0.22 / (purity * GYPSUM_YIELD / DENSITY.gypsum / slurryPerKg)
  const alphaSet = Math.min(0.95 * alphaMax, (x ** -3 + y ** -3) ** (-1 / 3))
  const cpPowder = purity * CP_HEMIHYDRATE + (1 - purity) * CP_INERT
  const start = (cpPowder * roomTemperature + CP_WATER * input.ratio * waterTemperature) / (cpPowder + CP_WATER * input.ratio)
  const area = input.section > 0 ? 1 / (mix.slurryDensity * input.section / (1 + input.ratio)) : Infinity // m2 of face per kg powder
  const inner = input.section / (3 * CONDUCTIVITY) // from the mean of a parabolic profile, warm at the mould, to the open face
  const mouldFilm = 1 / (1 / FILM + MOULD_MATERIALS[input.mould].resistance)
  const saturation = (t: number) => 610.94 * Math.exp(17.625 * t / (t + 243.04)) // Pa, Magnus form (Alduchov & Eskridge 1996, from memory)
  const humid = 0.5 * saturation(roomTemperature)
  const openFlux = (mean: number) => {
    let face = mean
    for (let newton = 0; newton < 2; newton++) {
      const p = saturation(face)
      const flux = FILM * (face - roomTemperature) + EVAPORATIVE_FILM / 66 * (p - humid)
      const slope = FILM + EVAPORATIVE_FILM / 66 * p * 4283.6 / (face + 243.04) ** 2
      face -= (face - mean + inner * flux) / (1 + inner * slope)
    }
    return inner > 0 ? (mean - face) / inner : 0
  }
  const loss = (t: number) => area * (openFlux(t) + mouldFilm * (t - roomTemperature))
  const core = (t: number) => t + Math.max(0, openFlux(t)) * input.section / (6 * CONDUCTIVITY)
  const turns = STIR_TOOLS[input.stir.tool].turnsPerMinute * input.stir.minutes
  return {
    k: powder.rate / 60 * scatter.rate * (powder.ratio.recommended / w) ** 0.75,
    seeds: stirredSeeds(turns) * scatter.seeds + 2 * (input.dirt ?? 0),
    alphaMax, alphaSet, freshYield, start, ambient: roomTemperature,
    heatCapacity: alpha => cpPowder - purity * HEAT_SLOPE * alpha + CP_WATER * input.ratio,
    loss, core,
    wetStrength: powder.strengthFactor * 71.8 * Math.exp(-4.445 * mix.dryPorosity),
  }
}

/** Hydration at which the yield stress of the setting mix reaches `tau` Pa. */
function hydrationAtYield(c: Constants, tau: number): number {
  return tau <= c.freshYield ? 0 : c.alphaSet * Math.log(tau / c.freshYield) / Math.log(GLOSS_YIELD / c.freshYield)
}

/**
 * Hydration and mean temperature of a cast against time, as one well-mixed body that loses heat through its open wet face and its mould.
 * Same kinetics as the closed form above; one body instead of layers shifts the loss of gloss by seconds and the warmest moment of
 * pieces thicker than about 40 mm by minutes (see docs/model.md). Midpoint rule, 10 s steps, 30 s once it is cooling.
 */
function integrate(input: SettingInput, scatter: Scatter, each: (t: number, alpha: number, temperature: number) => boolean): Constants {
  const c = constantsOf(input, scatter)
  const { powder } = input
  const q = HEAT[powder.crystal]
  let alpha = 0, temperature = c.start, t = 0
  const rate = (a: number, T: number) => a >= c.alphaMax ? 0 : c.k * fastTemperatureFactor(T) * (c.seeds + a) * (1 - a / c.alphaMax)
  const warming = (a: number, T: number, da: number) => (powder.purity * (q + HEAT_SLOPE * (T - 25)) * da - c.loss(T)) / c.heatCapacity(a)
  each(0, alpha, temperature)
  while (t < LONGEST) {
    const h = alpha > 0.97 * c.alphaMax ? 30 : 10
    const r1 = rate(alpha, temperature)
    const midAlpha = alpha + r1 * h / 2, midT = temperature + warming(alpha, temperature, r1) * h / 2
    const r2 = rate(midAlpha, midT)
    temperature += warming(midAlpha, midT, r2) * h
    alpha = Math.min(c.alphaMax, alpha + r2 * h)
    t += h
    if (!each(t, alpha, temperature)) break
  }
  return c
}

/**
 * The moments of a cast. Earliest physical times: what to advise is decided in core/pour/moments.
 * Criteria (engineering, see docs/model.md): pour-by and webbing by yield stress, gloss by jamming or needle percolation,
 * opening by wet strength S x^2 against a share of the full wet strength.
 */
export function settingMoments(input: SettingInput, scatter: Scatter = { rate: 1, seeds: 1 }): SettingMoments {
  const probe = constantsOf(input, scatter)
  const { alphaSet, alphaMax, wetStrength } = probe
  const atStrength = (needed: number, least = 0) => alphaSet + (alphaMax - alphaSet) * Math.min(0.995, Math.max(least, Math.sqrt(Math.min(1, needed / wetStrength))))
  const final = atStrength(1.7, 0.25)
  const levels = [
    hydrationAtYield(probe, Math.max(25, 2.5 * probe.freshYield)),
    hydrationAtYield(probe, Math.max(80, 6 * probe.freshYield)),
    alphaSet, final,
    Math.max(final, atStrength(Math.max(1.5, 0.35 * wetStrength))),
    atStrength(Math.max(2.5, 0.70 * wetStrength)),
    atStrength(0.90 * wetStrength),
  ]
  const reached = levels.map(() => Infinity)
  let previousT = 0, previousAlpha = 0, previousTemperature = probe.start
  let hottest = -Infinity, hottestAt = 0, cool = Infinity, rising = false
  integrate(input, scatter, (t, alpha, temperature) => {
    for (let i = 0; i < levels.length; i++) {
      if (reached[i] === Infinity && alpha >= levels[i]!) {
        reached[i] = t === 0 ? 0 : previousT + (t - previousT) * (levels[i]! - previousAlpha) / (alpha - previousAlpha)
      }
    }
    if (alpha > 0.05 && temperature > hottest) {
      hottest = temperature
      hottestAt = t
      rising = true
    }
    if (rising && cool === Infinity && alpha > 0.8 * alphaMax && temperature <= probe.ambient + 2) {
      const share = (previousTemperature - probe.ambient - 2) / (previousTemperature - temperature || 1)
      cool = previousT + (t - previousT) * Math.max(0, Math.min(1, share))
    }
    previousT = t
    previousAlpha = alpha
    previousTemperature = temperature
    return cool === Infinity || reached.includes(Infinity)
  })
  const [pourBy, webbing, glossGone, finalSet, flexible, rigid, thin] = reached as [number, number, number, number, number, number, number]
  return {
    pourBy, webbing, glossGone, finalSet, openFlexible: flexible,
    openRigid: Math.max(rigid, hottestAt), openThin: Math.max(thin, hottestAt + 300),
    warmest: hottestAt, warmestTemperature: probe.core(hottest), coolAgain: Math.max(cool, finalSet),
  }
}

/** The course of temperature, hydration and stiffness, thinned to about `points` samples evenly spaced in log time, to `until` seconds. */
export function settingCurve(input: SettingInput, until: Seconds, points = 120): SettingCurve {
  const time: number[] = [], temperature: number[] = [], hydration: number[] = [], stiffness: number[] = []
  const c = constantsOf(input, { rate: 1, seeds: 1 })
  const spread = Math.log1p(until / 30) / points
  let next = 0
  integrate(input, { rate: 1, seeds: 1 }, (t, alpha, T) => {
    if (Math.log1p(t / 30) >= next || t === 0) {
      time.push(t)
      temperature.push(alpha > 0.05 ? c.core(T) : T)
      hydration.push(alpha)
      stiffness.push(Math.min(GLOSS_YIELD, c.freshYield * (GLOSS_YIELD / c.freshYield) ** (alpha / c.alphaSet)))
      next = Math.log1p(t / 30) + spread
    }
    return t < until
  })
  return { time, temperature, hydration, stiffness }
}

/** Temperature rise if no heat left the cast at all, K: the ceiling for a very thick piece. First principles. */
export function adiabaticRise(input: Pick<SettingInput, 'powder' | 'ratio'>, start: Celsius): number {
  const { powder, ratio } = input
  const alphaMax = Math.min(1, ratio / (powder.purity * CHEMICAL_WATER))
  const heat = powder.purity * alphaMax * (HEAT[powder.crystal] + HEAT_SLOPE * (start - 25))
  const capacity = powder.purity * (CP_HEMIHYDRATE - HEAT_SLOPE * alphaMax) + (1 - powder.purity) * CP_INERT + CP_WATER * ratio
  return heat / capacity
}

/** How the fresh mix behaves before any setting: whether it flows at all, and its yield stress in Pa. */
export function freshStiffness(powder: PowderClass, ratio: WaterRatio, additions: readonly Addition[]): { readonly flows: boolean, readonly yieldStress: number } {
  if (!(ratio > 0)) return { flows: false, yieldStress: Infinity }
  const { effectiveRatio } = solveMix({ powder, ratio, waterTemperature: 20, additions }, { what: 'powder', amount: 1 })
  if (effectiveRatio <= 0) return { flows: false, yieldStress: Infinity }
  const { phi, yieldStress } = freshMix(powder, effectiveRatio, 20)
  return { flows: phi < powder.jammingFraction, yieldStress }
}
