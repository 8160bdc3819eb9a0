import type { Plan } from '~core/plan/types'
import { powderClass, type PowderClassId } from '~core/gypsum/powders'
import { combineGauges, type Gauge } from '~core/mould/gauge/gauge'
import type { BagBody, BucketBody, MouldBody } from '~contract/library'
import type { Chance } from './random'

/** Saltmarsh Lane, an invented workshop. Every number here is made up. */
const ml = (value: number, spread = 0.03) => ({
  value: value * 1e-6,
  low: value * (1 - spread) * 1e-6,
  high: value * (1 + spread) * 1e-6,
})
/** Gauged as a person would, the volume being what the gauges give together. */
const gauged = (...gauges: Gauge[]) => {
  const { value, low, high } = combineGauges(gauges)
  return { volume: { value, low, high }, gauges }
}
const mouth = (shape: 'round' | 'rectangular', width: number, length = width) => ({
  shape,
  width: width / 1000,
  length: length / 1000,
})

export const MOULDS = {
  lantern: {
    name: 'Lantern base',
    material: 'silicone',
    form: 'stepped',
    ...gauged({ how: 'water-weight', mass: 0.4108, temperature: 17 }, {
      how: 'gravel',
      reading: 4.15e-4,
      step: 1e-5,
      grain: 0.003,
      gap: 0.04,
    }, { how: 'water-part', water: 2e-4, share: 0.5 }),
    copies: 3,
    cradle: true,
    cost: 38,
    mouth: mouth('round', 92),
    wall: 0.008,
    section: 0.03,
    fragile: false,
    note: 'Sits in its wooden cradle.',
  },
  tile: {
    name: 'Garden tile',
    material: 'polyurethane',
    form: 'tile',
    volume: ml(640, 0.02),
    mouth: mouth('rectangular', 200),
    wall: 0.012,
    section: 0.016,
    fragile: false,
    note: '',
  },
  rosette: {
    name: 'Ceiling rosette',
    material: 'silicone',
    form: 'rosette',
    ...gauged({ how: 'water-jug', reading: 1.84e-3, step: 5e-5 }),
    mouth: mouth('round', 360),
    wall: 0.01,
    section: 0.028,
    fragile: true,
    cost: 120,
    wear: [{ on: '2026-08-02', note: 'Tip of the third petal', tear: true }],
    note: 'Petal tips tear if it is hurried.',
  },
  bellpull: {
    name: 'Bell-pull',
    material: 'silicone',
    form: 'baluster',
    volume: ml(38, 0.06),
    mouth: mouth('round', 34),
    wall: 0.006,
    section: 0.014,
    fragile: true,
    note: '',
  },
  fern: {
    name: 'Fern relief',
    material: 'clay',
    form: 'relief',
    volume: ml(980, 0.12),
    mouth: mouth('rectangular', 240, 180),
    wall: 0.02,
    section: 0.024,
    fragile: false,
    note: 'Clay slab pressed afresh each time.',
  },
  dampbox: {
    name: 'Damp store slab',
    material: 'plastic',
    form: 'bat',
    volume: ml(3400, 0.03),
    mouth: mouth('rectangular', 420, 280),
    wall: 0.003,
    section: 0.03,
    fragile: false,
    note: 'For the pottery next door.',
  },
  heel: {
    name: 'Boot-heel mark',
    material: 'ground',
    form: 'print',
    volume: ml(520, 0.25),
    mouth: mouth('rectangular', 110, 140),
    wall: 0.03,
    section: 0.025,
    fragile: false,
    note: 'Towpath survey, by the second lock.',
  },
} as const satisfies Record<string, MouldBody>
export type MouldKey = keyof typeof MOULDS

export const BUCKETS = {
  pail: { name: '10 l pail', vessel: { bottom: 0.212, top: 0.262, height: 0.245 } },
  bowl: { name: 'Flexible 2 l bowl', vessel: { bottom: 0.1, top: 0.176, height: 0.125 } },
  tub: { name: '25 l tub', vessel: { bottom: 0.31, top: 0.37, height: 0.29 } },
} as const satisfies Record<string, BucketBody>
export type BucketKey = keyof typeof BUCKETS

export const BAGS = {
  cement: {
    name: 'Gypsum cement, bag 14',
    classId: 'gypsum-cement',
    uncertain: false,
    left: 17.5,
    price: 1.35,
    note: 'Opened twelve days ago.',
  },
  casting: {
    name: 'Casting plaster, bag 9',
    classId: 'casting-plaster',
    uncertain: false,
    left: 11.2,
    price: 0.9,
    bulk: { low: 720, high: 780 },
    note: '',
  },
  pottery: {
    name: 'Pottery plaster, bag 3',
    classId: 'pottery-plaster',
    uncertain: true,
    left: 3.4,
    price: 0.85,
    note: 'Stood open over the winter.',
  },
  field: {
    name: 'Field bags, pre-measured',
    classId: 'plaster-of-paris',
    uncertain: false,
    left: 6,
    price: 1.1,
    note: '1 kg each, double bagged.',
  },
} as const satisfies Record<string, BagBody>
export type BagKey = keyof typeof BAGS

export interface Ids {
  readonly moulds: Record<MouldKey, string>
  readonly buckets: Record<BucketKey, string>
  readonly bags: Record<BagKey, string>
}

export function makeIds(c: Chance): Ids {
  const give = <K extends string>(things: Record<K, unknown>) =>
    Object.fromEntries(Object.keys(things).map(key => [key, c.id()])) as Record<K, string>
  return { moulds: give(MOULDS), buckets: give(BUCKETS), bags: give(BAGS) }
}

interface Wish {
  readonly name: string
  readonly fills: readonly (readonly [MouldKey, number])[]
  readonly bag: BagKey
  readonly bucket?: BucketKey
  readonly change?: Partial<Plan>
}

/** A plan of the workshop: what differs from its usual way of working is in `change`. */
export function planOf(ids: Ids, wish: Wish): Plan {
  const classId: PowderClassId = BAGS[wish.bag].classId
  return {
    name: wish.name,
    endUse: 'painted',
    fills: wish.fills.map(([key, count]) => ({ mould: ids.moulds[key], count })),
    overflow: 'Test tiles',
    classId,
    bag: ids.bags[wish.bag],
    school: 'weighed',
    ratio: powderClass(classId).ratio.recommended,
    scoop: { volume: 250e-6, filling: 'loose', perWater: 2 },
    waterTemperature: 18,
    roomTemperature: 20,
    bucket: wish.bucket && ids.buckets[wish.bucket],
    losses: 0.06,
    soakMinutes: 2,
    stir: { tool: 'hand', minutes: 2 },
    additions: [],
    known: { what: 'moulds', amount: 0 },
    ...wish.change,
  }
}

export const WISHES = {
  lanterns: {
    name: 'Six lantern bases',
    fills: [['lantern', 6]],
    bag: 'cement',
    bucket: 'bowl',
    change: { ratio: 0.45 },
  },
  tiles: {
    name: 'Garden tiles, set B',
    fills: [['tile', 4]],
    bag: 'cement',
    bucket: 'pail',
    change: { endUse: 'outdoors', ratio: 0.4 },
  },
  rosette: {
    name: 'Ceiling rosette',
    fills: [['rosette', 1]],
    bag: 'casting',
    bucket: 'pail',
    change: { endUse: 'painted', ratio: 0.68 },
  },
  bellpulls: { name: 'Bell-pulls', fills: [['bellpull', 12]], bag: 'casting', bucket: 'bowl' },
  ferns: {
    name: 'Fern reliefs',
    fills: [['fern', 2]],
    bag: 'pottery',
    bucket: 'pail',
    change: { school: 'saturation', endUse: 'sealed' },
  },
  damp: {
    name: 'Damp store for next door',
    fills: [['dampbox', 1]],
    bag: 'pottery',
    bucket: 'tub',
    change: { endUse: 'kept-damp', school: 'scoops', ratio: 0.7, stir: { tool: 'hand', minutes: 3 } },
  },
  towpath: {
    name: 'Towpath, second lock',
    fills: [['heel', 2]],
    bag: 'field',
    change: {
      school: 'bag',
      endUse: 'sealed',
      waterTemperature: 11,
      roomTemperature: 9,
      stir: { tool: 'kneaded-bag', minutes: 2 },
    },
  },
  evening: {
    name: 'Evening class lanterns',
    fills: [['lantern', 3], ['bellpull', 6]],
    bag: 'casting',
    bucket: 'bowl',
    change: { school: 'scoops' },
  },
} as const satisfies Record<string, Wish>
export type WishKey = keyof typeof WISHES
