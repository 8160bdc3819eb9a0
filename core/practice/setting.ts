import { powderClass } from '../gypsum/powders'
import { STIR_TOOLS } from '../gypsum/stirring'
import { plasticViscosity, pourLimit, webbingLimit, yieldStress } from '../setting/flow'
import { settingMix, type SettingInput, type SettingMix } from '../setting/setting-mix'
import { stirredSeeds } from '../setting/kinetics'
import { reactionOf } from '../setting/reaction'
import { seedsOf } from '../gypsum/additions'
import type { Seconds } from '../units/quantity'
import { ratioOf, TICK, wettedOf, type Bucket, type Place } from './bucket'

/** How the mix in the bucket sets: the product's own equation (core/setting/reaction.ts), as one place. */

/** What a bucket loses through its wall and top, W/(m2 K), over twice the surface of the water (engineering guess). */
const LOSS = 8, SURFACES = 2
/** Seeds that a share of old set plaster brings: as the forecast has it. */
const DIRT_SEEDS = 2
/** What is left in a bucket that is poured empty, kg. */
const EMPTY = 1e-3
/** A mix is worked out anew once its ratio has moved by this. */
const MOVED = 0.001

/** What the forecast would be told of this bucket, had it seen what really happened. */
export function inputOf(place: Place, b: Bucket, more: Partial<SettingInput> = {}): SettingInput {
  const { setup, truth } = place, { hidden = {} } = setup
  return {
    powder: powderClass(setup.powder), ratio: ratioOf(place, b),
    waterTemperature: b.waterTemperature + truth.warmth, roomTemperature: setup.room,
    stir: { tool: b.tool, minutes: b.turns / STIR_TOOLS[b.tool].turnsPerMinute },
    stirFrom: b.stirFrom === undefined || b.wetAt === undefined ? 0 : b.stirFrom - b.wetAt,
    section: 0.05, mould: 'plastic', additions: hidden.additions ?? [], dirt: b.dirt,
    ...setup.ground !== undefined && { ground: setup.ground }, ...more,
  }
}

/** The mix of a bucket, worked out anew only when it has changed. */
export function mixes(place: Place) {
  let known: SettingMix | undefined, at = -1
  return (b: Bucket): SettingMix => {
    // Poured empty, what clings to it is still the same mix.
    if (known && wettedOf(place, b) < EMPTY) return known
    const ratio = ratioOf(place, b)
    if (!known || Math.abs(ratio - at) > MOVED) {
      at = ratio
      known = settingMix(inputOf(place, b), place.truth.scatter)
    }
    return known
  }
}

/** One tick of setting and of cooling. @param seeds made by stirring so far, and brought */
function step(place: Place, b: Bucket, mix: SettingMix, seeds: number): void {
  reactionOf(mix)(b.alpha, b.temperature, 1, TICK, seeds)
  const mass = (b.strewn - b.lifted) / mix.paste.powder, lost = LOSS * SURFACES * place.area
  b.temperature[0]! -= lost * (b.temperature[0]! - place.setup.room) * TICK / (mass * mix.capacity)
}

const seedsOfBucket = ({ setup, truth }: Place, b: Bucket) =>
  truth.scatter.seeds * stirredSeeds(b.turns) + seedsOf(setup.hidden?.additions ?? []) + DIRT_SEEDS * b.dirt

/** Half a second of setting of what is mixed; nothing while powder is still coming. */
export function set(place: Place, b: Bucket, mixOf: (b: Bucket) => SettingMix): void {
  if (b.stirFrom === undefined) return
  step(place, b, mixOf(b), seedsOfBucket(place, b))
}

/** The time before the first stir, at once: only then is it known what has been mixed. */
export function catchUp(place: Place, b: Bucket, mixOf: (b: Bucket) => SettingMix): void {
  if (b.wetAt === undefined) return
  const mix = mixOf(b)
  b.temperature[0] = mix.start
  for (let t: Seconds = b.wetAt; t < b.now; t += TICK) step(place, b, mix, seedsOfBucket(place, b))
}

/** How it flows now: yield stress and its limits, Pa, viscosity, Pa s, and how far it is on the way to lost gloss. */
export interface Flow {
  readonly tau: number
  readonly mu: number
  readonly fresh: number
  readonly pours: number
  readonly webs: number
  readonly share: number
  readonly density: number
  readonly temperature: number
}
export function flowOf(b: Bucket, { fresh, alphaSet }: SettingMix): Flow {
  const share = Math.min(1, b.alpha[0]! / alphaSet), temperature = b.temperature[0]!
  return {
    tau: yieldStress(fresh, share), mu: plasticViscosity(fresh, share, temperature), fresh: fresh.yieldStress,
    pours: pourLimit(fresh), webs: webbingLimit(fresh), share, density: fresh.density, temperature,
  }
}
