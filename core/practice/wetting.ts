import type { Kilograms, Seconds } from '../units/quantity'
import { bedOf, cellArea, dryOf, levelOf, LUMP_DENSITY, lumpsOf, TICK, type Bucket, type Place } from './bucket'
import { CELLS, fallOf, GRID, slump } from './surface'
import type { Act, Lumps } from './types'

/**
 * How powder wets in places: it sinks at a rate, clumps where it lies thick or the water is hot, stands in islands when
 * no water is left above the bed, and what is dry inside lumps wets with the square of their size. All constants are
 * engineering guesses (ranges: 10 and 90 %); their directions are common practice, no source.
 */

/** Most that a surface takes, kg/(m2 s) (.25 to .9), and the layer that halves it since air must get out, kg/m2. */
const TAKES = 0.45, LAYER = 15
/** Water drawn up by capillaries, and over how much of a depth sinking comes to an end, m. */
const DRAWN_UP = 0.002, OVER = 0.003
/** Share that clumps at best (.005 to .03); from which loose layer on, and over how much, half of it does, m. */
const CLUMPS = 0.012, CLUMPS_MOST = 0.9, THIN_LAYER = 0.011, THICKER_BY = 0.019
/** Over this the share grows by an eighth a degree. */
const HOT = 30
/** Soaking through takes by size 25, 156, 900 s: 6.25 s a square millimetre (3 to 12), Washburn 1921 form. */
const SOAKS: readonly Seconds[] = [25, 156, 900]
/** Of crumbs in caked powder: their sizes, what a sieve lets through, and what is hard and never goes. */
const CRUMBS: Lumps = [0, 0.6, 0.4], SIEVE_PASSES = 0.1, HARD = 0.12
/** What lies dry when stirring begins: so much goes into lumps of these sizes. */
const STIRRED_UNDER = 0.6, UNDER: Lumps = [0.3, 0.5, 0.2]
/** Powder strewn into what is stirred already: half of it clumps. */
const LATE = 0.5

interface Character { readonly alpha: number, readonly clots: number, readonly speed: number, readonly airy: boolean }
/** Alpha powders wet twice as fast; a mix with silica lets the air go and hardly clots. */
function characterOf({ powder, plaster }: Place): Character {
  const silica = powder !== plaster, alpha = plaster.crystal === 'alpha'
  return { alpha: alpha ? 2 : 1, clots: silica ? 0.1 : 1, speed: (alpha ? 2 : 1) * (silica ? 1.8 : 1), airy: silica }
}

const clamp = (x: number) => Math.max(0, Math.min(1, x))
const hotness = (t: number) => 1 + Math.max(0, t - HOT) / 8

/** Shares by size of what clumps in a layer of `d` kg/m2. */
function sizesOf(d: number, waterTemperature: number, clots: number): Lumps {
  const big = Math.min(clots < 1 ? 0.1 : 0.6, d / 80 + 0.5 * clamp((waterTemperature - HOT) / 20))
  const small = (1 - big) / (1 + d / 8)
  return [small, 1 - big - small, big]
}

/** Powder falls; where nothing was wet before, from now on the clock of the mix runs. */
export function strew(place: Place, b: Bucket, act: Extract<Act, { do: 'strew' }>): void {
  b.strews++
  b.strewn += act.kg
  const { caking } = place.truth
  // Crumbs are lumps from the start; a sieve breaks nine in ten.
  const crumbs = Math.min(0.5, CLUMPS * Math.max(0, caking - 1)) * (act.sieved ? SIEVE_PASSES : 1) * act.kg
  for (const [i, share] of CRUMBS.entries()) {
    b.lumps[i]! += share * crumbs
    b.missed[i]! += HARD * share * crumbs
  }
  const loose = act.kg - crumbs
  if (b.water > 0) b.wetAt ??= b.now
  if (b.stirFrom !== undefined) {
    for (const [i, share] of UNDER.entries()) b.lumps[i]! += LATE * share * loose
    b.mixed += (1 - LATE) * loose
    return
  }
  const fall = fallOf({ ...act, kg: loose }, place.setup.vessel.width, place.area)
  for (let c = 0; c < b.dry.length; c++) b.dry[c]! += fall[c]!
}

/** Lifts some of what lies dry. @returns how much there was to lift */
export function lift(place: Place, b: Bucket, kg: Kilograms): Kilograms {
  const there = dryOf(place, b), taken = Math.min(kg, there)
  if (there > 0) for (let c = 0; c < b.dry.length; c++) b.dry[c]! *= 1 - taken / there
  b.lifted += taken
  return taken
}

/** Half a second of wetting and slumping, until it is stirred; lumps go on soaking then too. */
export function wet(place: Place, b: Bucket): void {
  soak(place, b)
  if (b.stirFrom !== undefined || b.water <= 0) return
  const { powder, truth, volume, bedShare } = place, { speed, clots, airy } = characterOf(place)
  const level = levelOf(place, b), deep = lumpsOf(b) / LUMP_DENSITY / place.area
  const loose = (powder.bulkLoose.low + powder.bulkLoose.high) / 2, cell = cellArea(place)
  const hot = hotness(b.waterTemperature)
  for (let c = 0; c < b.dry.length; c++) {
    const d = b.dry[c]!
    if (d <= 0) continue
    const free = level - b.bed[c]! * volume / bedShare - deep, open = clamp((free + DRAWN_UP) / OVER)
    const taken = Math.min(d, TAKES * truth.wetting * speed * open / (airy ? 1 : 1 + d / LAYER) * TICK)
    const thick = 0.5 * clamp((d / loose - THIN_LAYER) / THICKER_BY) * clots
    const clumps = Math.min(CLUMPS_MOST, (CLUMPS + thick) * hot) * taken
    b.dry[c] = d - taken
    b.bed[c]! += taken - clumps
    const sizes = sizesOf(d, b.waterTemperature, clots)
    for (let i = 0; i < 3; i++) b.lumps[i]! += sizes[i]! * clumps * cell
  }
  const width = place.setup.vessel.width / GRID
  slump(b.dry, loose, width, 'dry')
  slump(b.bed, bedShare / volume, width, 'bed')
}

/** What is in lumps wets through where there is water to be had; what is hard never does. */
function soak(place: Place, b: Bucket): void {
  for (const [i, tau] of SOAKS.entries()) {
    const soft = b.lumps[i]! - b.missed[i]!
    if (soft <= 0) continue
    const gone = soft * -Math.expm1(-TICK / tau)
    b.lumps[i]! -= gone
    if (b.stirFrom !== undefined) b.mixed += gone
    else for (let c = 0; c < b.bed.length; c++) b.bed[c]! += gone / place.area
  }
}

/** The first turn of the hand: the bed is mixed, and what lay dry goes under. */
export function stirUnder(place: Place, b: Bucket): void {
  const dry = dryOf(place, b), under = STIRRED_UNDER * dry
  b.mixed += bedOf(place, b) + dry - under
  b.bed.fill(0)
  b.dry.fill(0)
  for (const [i, share] of UNDER.entries()) b.lumps[i]! += share * under
  b.stirFrom = b.now
}

/** Cells that are dry on top, cells of those where nothing sinks any more, and cells with clear water, as shares. */
export interface Look { readonly dry: number, readonly stays: number, readonly clear: number }
export function lookOf(place: Place, b: Bucket): Look {
  const level = levelOf(place, b), deep = lumpsOf(b) / LUMP_DENSITY / place.area
  let dry = 0, stays = 0, clear = 0
  for (let c = 0; c < b.dry.length; c++) {
    const free = level - b.bed[c]! * place.volume / place.bedShare - deep
    if (b.dry[c]! > 0.25) {
      dry++
      if (free + DRAWN_UP <= 0.0005) stays++
    }
    if (free >= 0.002) clear++
  }
  return { dry: dry / CELLS.length, stays: stays / CELLS.length, clear: clear / CELLS.length }
}

/** Where most clear water stands over the bed, as shares of the width: seen from above. */
export function clearestPlace(b: Bucket): { readonly x: number, readonly y: number } {
  let best = 0
  for (let c = 1; c < b.dry.length; c++) {
    const less = b.bed[c]! + b.dry[c]! - b.bed[best]! - b.dry[best]!
    if (less < 0) best = c
  }
  const [i, j] = CELLS[best]!
  return { x: (i + 0.5) / GRID, y: (j + 0.5) / GRID }
}
