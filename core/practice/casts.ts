import { drivingStress, LARGEST_BUBBLE } from '../setting/flow'
import { stayingFilm } from '../setting/draining'
import type { SettingInput, SettingMix } from '../setting/setting-mix'
import type { Seconds } from '../units/quantity'
import { contentsOf, ratioOf, TICK, type Bucket, type Place } from './bucket'
import { uniform } from './noise'
import { flowOf, inputOf, type Flow } from './setting'
import { evenness, spoiltBy } from './stirring'
import { LUMP_SIZES, type Lumps, type PracticeMould } from './types'

/**
 * Moulds as they are filled: what runs in, the air it carries and shuts in, what tapping drives out. Slots: a
 * yield-stress fluid under its own head (first principles); the rest are engineering guesses.
 */

export interface Piece {
  readonly mould: PracticeMould
  /** Share that is filled, and when each part came in: seconds since this learner began, and of which bucket. */
  filled: number
  readonly pours: { readonly at: Seconds, readonly bucket: number, readonly stiff: boolean }[]
  /** What stands in it: by the mix at its last pour. */
  mix?: { readonly input: SettingInput, readonly wetAt: Seconds, readonly setting: SettingMix }
  air: number
  /** Lumps by size, kg a m3. */
  lumps: Lumps
  spoilt: number
  even: number
  high: boolean
  many: boolean
  coated: boolean
  tilted: boolean
  /** Integral of the share that flows over viscosity while it was shaken, m s/kg. */
  shaken: number
  /** Shares of the thin and of the hooked parts that stay empty. */
  thinLeft: number
  hookLeft: number
  leaking: boolean
  wall: number
  openedAt?: Seconds
  paintedAt?: Seconds
}
export const emptyPiece = (mould: PracticeMould): Piece => ({
  mould, filled: 0, pours: [], air: 0, lumps: [0, 0, 0], spoilt: 1, even: 1, high: false, many: false, coated: false,
  tilted: false, shaken: 0, thinLeft: 1, hookLeft: 1, leaking: (mould.leak ?? 0) > 0, wall: 0,
})

const GRAVITY = 9.80665
/** A stream of so many litres a second for a batch of V0 litres; what handing a mould takes, s. */
const streamOf = (litres: number) => litres ** 0.4 / 20 / 1000
const EACH: Seconds = 5
/** Past the limit it runs slower, to this share at least; from here on not at all. */
const SLOWEST = 0.15
/** After a first coat the slot is wet: half the head does. What went in crooked and was tapped gives its air up. */
const COATED = 0.5, TILTED_LEFT = 0.02, STRAIGHT = [0.55, 0.95] as const
/** Tapping empties thin and hooked parts of air, s. */
const THIN_CLEARS = 12, HOOK_CLEARS = 90
const MOST_VISCOUS = 3
/** A seam is tight once the mix is as stiff as this, Pa. */
const SEALS = 100
const MOST_WALL = 0.008

/** The narrowest gap that such a mix runs into, m: 2 tau L / (rho g H). */
export const narrowest = (tau: number, length: number, head: number, density: number): number =>
  2 * tau * length / (density * GRAVITY * head)
export const staysEmpty = (gap: number, need: number): number => 1 / (1 + (gap / need) ** 4)

/** How fast it runs out of the bucket, m3/s. @param batch what was in it at first, m3 */
export function streamNow(batch: number, { tau, pours, share }: Flow): number {
  if (share >= 1) return 0
  return streamOf(1000 * batch) * (tau > pours ? Math.max(SLOWEST, pours / tau) : 1)
}

/** Takes a volume out of the bucket, with all that is in it in proportion. @returns what there was, m3 */
export function takeOut(place: Place, b: Bucket, volume: number): number {
  const there = contentsOf(place, b), taken = Math.min(volume, there), share = there > 0 ? taken / there : 0
  b.poured.powder += b.mixed * share
  b.poured.water += b.water * share
  for (let i = 0; i < 3; i++) {
    b.poured.lumps += b.lumps[i]! * share
    b.lumps[i]! *= 1 - share
    b.missed[i]! *= 1 - share
  }
  b.mixed *= 1 - share
  b.water *= 1 - share
  return taken
}

/** A spoonful of what is in the bucket, from before it runs out. */
export const sampleOf = (place: Place, b: Bucket) => {
  const there = Math.max(1e-9, contentsOf(place, b))
  return { ratio: ratioOf(place, b), air: b.air, lumps: b.lumps.map(kg => kg / there) }
}
export interface Poured {
  readonly sample: ReturnType<typeof sampleOf>
  readonly high: boolean
  readonly many: boolean
  readonly at: Seconds
  readonly bucket: number
  readonly seed: number
  readonly counter: number
}
/** So much of the mix runs into a mould. */
export function runIn(place: Place, b: Bucket, setting: SettingMix, piece: Piece, volume: number, how: Poured): void {
  const { mould } = piece, { sample } = how, flow = flowOf(b, setting)
  const before = piece.filled * mould.volume, all = before + volume, weigh = (old: number, now: number) =>
    (old * before + now * volume) / Math.max(1e-12, all)
  piece.air = weigh(piece.air, sample.air)
  piece.lumps = piece.lumps.map((old, i) => weigh(old, sample.lumps[i]!)) as Lumps
  piece.spoilt = weigh(piece.spoilt, spoiltBy(b))
  piece.even = weigh(piece.even, evenness(b))
  piece.high ||= how.high
  piece.many ||= how.many
  piece.pours.push({ at: how.at, bucket: how.bucket, stiff: mould.wall === undefined && flow.tau > 3 * flow.pours })
  piece.mix = {
    setting, wetAt: b.wetAt ?? b.now,
    input: inputOf(place, b, {
      ratio: sample.ratio, section: mould.section, mould: mould.material, ...mould.shape && { shape: mould.shape },
    }),
  }
  piece.filled = all / mould.volume
  const { thin, hook } = mould.detail ?? {}
  if (thin) {
    const need = narrowest(flow.tau, thin.length, Math.max(0.005, mould.height * piece.filled), flow.density)
    piece.thinLeft = staysEmpty(thin.gap, need * (piece.coated ? COATED : 1))
  }
  if (hook && piece.filled > 0.5) {
    const [low, high] = STRAIGHT, straight = low + (high - low) * uniform(how.seed, 'hook', how.counter)
    piece.hookLeft = Math.min(piece.hookLeft, piece.tilted ? TILTED_LEFT : straight)
  }
}

/** So long and no longer each mould takes beside what runs. */
export const handing = EACH

/** Half a second of tapping a mould, by hand or on a table. */
export function shake(piece: Piece, flow: Flow, setting: SettingMix, table: boolean): void {
  const push = drivingStress(setting.fresh, table ? 'vibrated' : 'tapped', piece.mould.section)
  const f = Math.max(0, 1 - flow.tau / push) / Math.min(MOST_VISCOUS, flow.mu)
  if (f <= 0) return
  piece.shaken += f * TICK
  piece.thinLeft *= Math.exp(-TICK / THIN_CLEARS)
  piece.hookLeft *= Math.exp(-TICK / HOOK_CLEARS)
}

/** Smallest bubble that left a piece while it was shaken, m. */
export function smallestLeft({ mould, shaken }: Piece, density: number): number {
  const most = Math.min(LARGEST_BUBBLE, mould.section)
  return shaken <= 0 ? most : Math.min(most, Math.sqrt(18 * mould.section / (density * GRAVITY * shaken)))
}

/** Half a second in which its seam lets something out, until it is plugged or stiff. */
export function leak(piece: Piece, flow: Flow): void {
  if (!piece.leaking || piece.filled <= 0) return
  if (flow.tau > SEALS) piece.leaking = false
  else piece.filled = Math.max(0, piece.filled - piece.mould.leak! * TICK / piece.mould.volume)
}

/** A swilled mould keeps what its face holds of such a mix. @returns the mix that stayed, m3 */
export function coatWall(piece: Piece, { tau, mu, density }: Flow): number {
  const film = Math.min(MOST_WALL, stayingFilm({ yieldStress: tau, viscosity: mu, density }))
  piece.wall += film
  return film * piece.mould.face
}

/** Number of lumps of each size, a square metre of face: of those whose middle is near the face. */
export function lumpsSeen({ lumps }: Piece): number {
  return lumps.reduce((sum, perVolume, i) => {
    const d = LUMP_SIZES[i]!, one = 700 * Math.PI / 6 * d ** 3
    return sum + perVolume / one * d
  }, 0)
}
