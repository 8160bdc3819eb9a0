import type { FormId } from '../drawing/form-ids'
import { COVER, guessedGauge } from '../mould/photo/marks'
import { combineGauges } from '../mould/gauge/gauge'
import type { MouldMaterial } from '../setting/body'
import type { CubicMetres, Metres } from '../units/quantity'

/**
 * What somebody who comes in from the street fills, by what it looks like and three measures. Good for a bucket, not
 * for a record: how far off each may be is said.
 */
export const DOOR_KINDS = ['heart', 'tile', 'box', 'bowl', 'cup', 'face', 'hand', 'print', 'bat'] as const
export type DoorKindId = typeof DOOR_KINDS[number]

/** Outside measures of one piece as it lies in its mould, m. */
export interface Measures { readonly width: Metres, readonly length: Metres, readonly depth: Metres }
export type MeasureId = keyof Measures

export const SIZES = ['small', 'middle', 'large'] as const
export type SizeId = typeof SIZES[number]

export interface DoorKind {
  readonly form: FormId
  readonly material: MouldMaterial
  readonly round: boolean
  /** The measures it is asked for; what is left out follows from the others. */
  readonly asks: readonly MeasureId[]
  readonly sizes: Readonly<Record<SizeId, Measures>>
  /** What it holds, by its measures. */
  readonly volume: (m: Measures) => CubicMetres
  /** By how much that may be off, a share of it (engineering guess). */
  readonly off: number
  /** A cast of a person: made in a finished impression only, never around skin. */
  readonly skin?: true
}

const mm = (width: number, length: number, depth: number): Measures =>
  ({ width: width / 1000, length: length / 1000, depth: depth / 1000 })
const sizes = (small: Measures, middle: Measures, large: Measures) => ({ small, middle, large })
const box = (share: number) => ({ width, length, depth }: Measures) => share * width * length * depth
/** A cap of a ball, by its rim and depth. */
const cap = ({ width, depth }: Measures) => Math.PI * depth / 6 * (3 * (width / 2) ** 2 + depth ** 2)
/** A cup that narrows, by both widths: frustum of a cone. */
const frustum = ({ width: a, length: b, depth }: Measures) => Math.PI * depth / 12 * (a * a + a * b + b * b)

const ALL: readonly MeasureId[] = ['width', 'length', 'depth']

/**
 * Shares of their box that hearts, faces and hands fill: the outline drawn for each, times the mean of its depth
 * (engineering guesses; a hand of 90 by 190 by 45 mm is then 0.38 l, as is found by putting one into water). Sizes are
 * those that moulds are commonly sold in or made to (common practice, no source).
 */
export const KINDS: Readonly<Record<DoorKindId, DoorKind>> = {
  heart: {
    form: 'heart', material: 'silicone', round: false, asks: ALL, volume: box(0.5), off: 0.12,
    sizes: sizes(mm(35, 33, 18), mm(90, 85, 28), mm(190, 180, 50)),
  },
  tile: {
    form: 'tile', material: 'silicone', round: false, asks: ALL, volume: box(1), off: 0.06,
    sizes: sizes(mm(100, 100, 12), mm(150, 150, 15), mm(300, 300, 22)),
  },
  box: {
    form: 'box', material: 'plastic', round: false, asks: ALL, volume: box(1), off: 0.05,
    sizes: sizes(mm(60, 80, 40), mm(110, 160, 70), mm(200, 300, 100)),
  },
  bowl: {
    form: 'bowl', material: 'silicone', round: true, asks: ['width', 'depth'], volume: cap, off: 0.08,
    sizes: sizes(mm(80, 80, 30), mm(150, 150, 60), mm(280, 280, 100)),
  },
  cup: {
    form: 'cup', material: 'silicone', round: true, asks: ALL, volume: frustum, off: 0.06,
    sizes: sizes(mm(50, 40, 50), mm(80, 60, 90), mm(130, 100, 150)),
  },
  face: {
    form: 'face', material: 'soft-impression', round: false, asks: ALL, volume: box(0.42), off: 0.2, skin: true,
    sizes: sizes(mm(110, 150, 60), mm(145, 200, 80), mm(170, 240, 100)),
  },
  hand: {
    form: 'hand', material: 'soft-impression', round: false, asks: ALL, volume: box(0.5), off: 0.2, skin: true,
    sizes: sizes(mm(50, 100, 26), mm(90, 190, 45), mm(110, 260, 60)),
  },
  print: {
    form: 'print', material: 'ground', round: false, asks: ALL, off: 0.25,
    volume: ({ width, length, depth }) =>
      combineGauges([guessedGauge({ long: length, width }, depth, COVER)]).value,
    sizes: sizes(mm(60, 80, 10), mm(105, 290, 15), mm(140, 330, 30)),
  },
  bat: {
    form: 'bat', material: 'plastic', round: false, asks: ALL, volume: box(1), off: 0.05,
    sizes: sizes(mm(200, 200, 20), mm(300, 300, 25), mm(450, 300, 35)),
  },
}

/** How thick a piece is where it is thickest: its heat leaves by the shortest way. */
export const thickest = ({ width, length, depth }: Measures): Metres => Math.min(width, length, depth)

/** Buckets that are sold everywhere, by what they are called, inside measures (common practice, no source). */
export const BUCKET_SIZES = {
  bowl: { bottom: 0.09, top: 0.13, height: 0.095 },
  two: { bottom: 0.13, top: 0.16, height: 0.13 },
  five: { bottom: 0.17, top: 0.21, height: 0.19 },
  ten: { bottom: 0.212, top: 0.262, height: 0.245 },
  tub: { bottom: 0.31, top: 0.37, height: 0.29 },
} as const
export type BucketSizeId = keyof typeof BUCKET_SIZES
export const BUCKET_SIZE_IDS = Object.keys(BUCKET_SIZES) as BucketSizeId[]
