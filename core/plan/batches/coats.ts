import { shellShares, shellVolume } from '../../mould/gauge/shells'
import type { CastSize } from '../../drying/expected'
import type { CubicMetres, Metres } from '../../units/quantity'
import { clothNeeds, type Cloth } from './cloth'
import { swilled, wallOf, wallVolume, type Cavity } from './hollow'
import { COAT_WAY_WORDS } from '../step-words'

/**
 * Work in coats: the same moulds take several mixes, one after the other. Ways and times are common practice, no
 * source, but where the model speaks.
 */

/** One part of a shell, and how thick each coat of it is to be. */
export interface Area {
  readonly name: string /** Measured over its surface. */
  readonly width: Metres
  readonly length: Metres
  readonly thickness: readonly Metres[]
  /** It bulges as a ball of that radius does; flat where nothing is said. */
  readonly radius?: Metres | undefined
}

export interface Coats {
  readonly way: CoatWay
  /**
   * Share of the solid volume that each coat takes, the face first. They add up to one, but in a hollow cast, where
   * they are what stays. Not used where areas say it.
   */
  readonly shares: readonly number[]
  /** Wall of a hollow cast: its coats then lay that on evenly, whatever their shares. */
  readonly wall?: Metres
  /** Cloth or long fibre that is dipped and laid into one of them. */
  readonly cloth?: Cloth
  /** Thickness map of a shell: areas by coats. It then says how much each coat takes. */
  readonly areas?: readonly Area[]
}

const COAT_WAY_FACTS = [
  {
    id: 'backed',
    hollow: false,
    shares: [0.25, 0.75],
  },
  {
    id: 'shell',
    hollow: false,
    shares: [0.3, 0.35, 0.35],
  },
  {
    id: 'swilled',
    hollow: true,
    shares: [0.14, 0.12, 0.12],
  },
  {
    id: 'base',
    hollow: false,
    shares: [0.6, 0.4],
  },
] as const

export const COAT_WAYS = COAT_WAY_FACTS.map(x => ({ ...x, ...COAT_WAY_WORDS[x.id] }))
export type CoatWay = typeof COAT_WAY_FACTS[number]['id']
export const coatWay = (id: CoatWay) => COAT_WAYS.find(w => w.id === id)!

export const MOST_COATS = 8

/** Volume of each coat for one cast of this mould; of a hollow one, what stays of it. What cloth drinks stays too. */
export function coatVolumes(coats: Coats, mould: Cavity): readonly CubicMetres[] {
  const { cloth } = coats, drunk = cloth ? clothNeeds(cloth, 1).drinks.value : 0
  return mixVolumes(coats, mould).map((v, k) => v + (k + 1 === cloth?.coat ? drunk : 0))
}
function mixVolumes(coats: Coats, mould: Cavity): readonly CubicMetres[] {
  const whole = mould.volume.value
  if (coats.areas?.length)
    return coats.areas[0]!.thickness.map((_, k) => coats.areas!.reduce((v, a) => v + coatOver(a, k, coats.way), 0))
  if (coats.wall !== undefined && coatWay(coats.way).hollow) {
    const { wall } = coats, count = coats.shares.length, upTo = (k: number) => wallVolume(mould, wall * k / count)
    return coats.shares.map((_, k) => upTo(k + 1) - upTo(k))
  }
  const sum = coatWay(coats.way).hollow ? 1 : coats.shares.reduce((a, b) => a + b, 0)
  const shares = coats.shares.map(s => s / sum), around = coats.way === 'shell' ? shellGauge(mould) : undefined
  return (around ? shellShares(around, shares) : shares).map(s => whole * s)
}
/**
 * What one coat of an area takes, m3: over a bulge each more than the one below it, inside a hollow each less
 * (core/mould/gauge/shells.ts). The area is that of the face, where the first coat lies.
 */
export function coatOver({ width, length, thickness, radius }: Area, k: number, way: CoatWay): CubicMetres {
  const inward = radius !== undefined && coatWay(way).hollow
  const face = { kind: 'area', area: width * length, ...radius && { radius: inward ? -radius : radius } } as const
  const upTo = (n: number) => {
    const t = thickness.slice(0, n).reduce((a, b) => a + b, 0)
    return shellVolume(face, inward ? Math.min(t, radius) : t)
  }
  return upTo(k + 1) - upTo(k)
}
/** What goes around something grows outwards: its coats then share the thickness, and each takes more than the last. */
const shellGauge = ({ gauges = [] }: Cavity) => gauges.filter(g => g.how === 'shell').at(-1)

/** What a cast of this mould takes: all of it poured solid, or what its coats come to. */
export function castVolume({ coats }: { readonly coats?: Coats }, mould: Cavity): CubicMetres {
  return coats ? coatVolumes(coats, mould).reduce((a, b) => a + b, 0) : mould.volume.value
}
/** Its thickest part: of a shell the thickest area, of a hollow cast its wall. */
export function castSection({ coats }: { readonly coats?: Coats }, mould: Cavity): Metres {
  if (coats?.areas?.length) return Math.max(...coats.areas.map(a => a.thickness.reduce((t, x) => t + x, 0)))
  return isHollow({ coats }) ? wallOf(mould, castVolume({ coats }, mould)) : mould.section
}

/** Whether its casts are hollow, and not by a map of areas. */
export const isHollow = ({ coats }: { readonly coats?: Coats }): boolean =>
  coats !== undefined && !coats.areas?.length && coatWay(coats.way).hollow

/** What a cast is to its heat and its drying. */
export function castSize(plan: { readonly coats?: Coats }, mould: Cavity): CastSize {
  return { volume: castVolume(plan, mould), section: castSection(plan, mould), hollow: isHollow(plan) }
}

/**
 * What comes back of each coat of these casts: each is swilled with enough to roll over all its faces, and what is
 * poured out goes on into the next one.
 */
export function pouredBack(plan: { readonly coats?: Coats }, moulds: readonly Cavity[]): readonly CubicMetres[] {
  const { coats } = plan
  if (!coats || !isHollow(plan)) return []
  const each = moulds.map(mould => ({ mould, stays: coatVolumes(coats, mould) }))
  return coats.shares.map((_, k) =>
    each.reduce((most, { mould, stays }) => Math.max(most, swilled(mould, stays[k]!) - stays[k]!), 0),
  )
}

/**
 * Thinnest coat that can be laid and thickest that stays where it is put, and how uneven a shell may be before it dries
 * unevenly and cracks (engineering guesses).
 */
const THINNEST: Metres = 0.002, THICKEST: Metres = 0.02, UNEVEN = 1.6
/** Thickest coat that stays upright where it is swilled, of a mix that webs already (core/setting/draining.ts). */
const RUNS_OFF: Metres = 0.008

/** A coat of less of the whole than this is none (engineering guess). */
const LEAST_SHARE = 0.005

export type CoatProblem
  = | { readonly code: 'one-coat' | 'area-without-coat' | 'over-hollow' | 'empty-coat' | 'cloth-at-face' | 'bare-cloth' }
    | { readonly code: 'bare-area', readonly area: string }
    | {
      readonly code: 'uneven'
      readonly thickest: { readonly area: string, readonly thickness: Metres }
      readonly thinnest: { readonly area: string, readonly thickness: Metres }
    }
    | { readonly code: 'thin-coat', readonly area: string, readonly least: Metres }
    | { readonly code: 'thick-coat', readonly most: Metres }
    | { readonly code: 'fills-up', readonly area: string, readonly radius: Metres }
    | { readonly code: 'runs-off', readonly each: Metres, readonly most: Metres }
    | { readonly code: 'no-wall' }

type Found = CoatProblem & { readonly severity: 'refuse' | 'warn' }

/** What is wrong with the thickness map of a shell. */
function areaProblems(areas: readonly Area[], way: CoatWay): readonly Found[] {
  const found: Found[] = []
  const total = areas.map(a => a.thickness.reduce((t, x) => t + x, 0))
  const bare = areas.find((_, i) => total[i]! <= 0)
  if (areas.some(a => a.thickness.length !== areas[0]!.thickness.length))
    found.push({ severity: 'refuse', code: 'area-without-coat' })
  const most = Math.max(...total), least = Math.min(...total)
  const at = (thickness: Metres) => ({ area: areas[total.indexOf(thickness)]!.name, thickness })
  if (bare) found.push({ severity: 'refuse', code: 'bare-area', area: bare.name })
  else if (most > UNEVEN * least)
    found.push({ severity: 'warn', code: 'uneven', thickest: at(most), thinnest: at(least) })
  const thin = areas.find(a => a.thickness.some(t => t > 0 && t < THINNEST))
  if (thin) found.push({ severity: 'warn', code: 'thin-coat', area: thin.name, least: THINNEST })
  if (areas.some(a => a.thickness.some(t => t > THICKEST)))
    found.push({ severity: 'warn', code: 'thick-coat', most: THICKEST })
  const full = coatWay(way).hollow ? areas.find((a, i) => a.radius !== undefined && total[i]! >= a.radius) : undefined
  if (full) found.push({ severity: 'warn', code: 'fills-up', area: full.name, radius: full.radius! })
  return found
}

function clothProblems({ coat, width, length, layers }: Cloth, count: number): readonly Found[] {
  if (coat < 2 || coat > count) return [{ severity: 'refuse', code: 'cloth-at-face' }]
  return width * length * layers > 0 ? [] : [{ severity: 'refuse', code: 'bare-cloth' }]
}

/** What is wrong with coats. */
export function coatProblems({ way, shares, areas, wall, cloth }: Coats): readonly Found[] {
  const count = areas?.length ? areas[0]!.thickness.length : shares.length
  const found: Found[] = cloth ? [...clothProblems(cloth, count)] : []
  if (count < 2) found.push({ severity: 'refuse', code: 'one-coat' })
  if (areas?.length) return [...found, ...areaProblems(areas, way)]
  if (coatWay(way).hollow && wall !== undefined) {
    if (!(wall > 0)) found.push({ severity: 'refuse', code: 'no-wall' })
    else if (wall / count > RUNS_OFF)
      found.push({ severity: 'warn', code: 'runs-off', each: wall / count, most: RUNS_OFF })
  }
  else if (coatWay(way).hollow && shares.reduce((a, b) => a + b, 0) > 1)
    found.push({ severity: 'refuse', code: 'over-hollow' })
  else if (shares.some(share => !(share > LEAST_SHARE * shares.reduce((a, b) => a + b, 0)))) found.push({ severity: 'refuse', code: 'empty-coat' })
  return found
}

export interface CoatOf { readonly number: number, readonly of: number }

/** Whether a batch is the one that finishes its casts: it makes them; the coats before it only belong to them. */
export const finishesCasts = ({ coat }: { readonly coat?: CoatOf }) => coat === undefined || coat.number === coat.of
