import type { BucketSizeId, DoorKindId, MeasureId, SizeId } from './kinds'
import type { DoorProblem, DoorWay } from './door'
import type { KnownThingId } from './known-things'

/** Sentences of the door. */

export const KIND_WORDS: Readonly<Record<DoorKindId, { readonly one: string, readonly many: string }>> = {
  heart: { one: 'Heart', many: 'hearts' },
  tile: { one: 'Tile', many: 'tiles' },
  box: { one: 'Box', many: 'boxes' },
  bowl: { one: 'Bowl', many: 'bowls' },
  cup: { one: 'Cup', many: 'cups' },
  face: { one: 'Face', many: 'faces' },
  hand: { one: 'Hand', many: 'hands' },
  print: { one: 'Print in the ground', many: 'prints' },
  bat: { one: 'Flat bat', many: 'bats' },
}
/** `nine hearts`, `a face`: so many as one would say it. */
const NUMBERS = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten', 'eleven', 'twelve']
export const piecesWords = (kind: DoorKindId, count: number): string =>
  `${NUMBERS[count] ?? count} ${count === 1 ? KIND_WORDS[kind].one.toLowerCase() : KIND_WORDS[kind].many}`

export const SIZE_WORDS: Readonly<Record<DoorKindId, Readonly<Record<SizeId, string>>>> = {
  heart: { small: 'Coin', middle: 'Palm', large: 'Plate' },
  tile: { small: 'Coaster', middle: 'Wall tile', large: 'Slab' },
  box: { small: 'Soap bar', middle: 'Lunch box', large: 'Shoe box' },
  bowl: { small: 'Rice bowl', middle: 'Cereal bowl', large: 'Salad bowl' },
  cup: { small: 'Candle', middle: 'Mug', large: 'Pot' },
  face: { small: 'A child’s', middle: 'A grown-up’s', large: 'With the brow and chin' },
  hand: { small: 'A baby’s', middle: 'A grown-up’s', large: 'With the wrist' },
  print: { small: 'A paw', middle: 'A shoe', large: 'A boot, deep' },
  bat: { small: 'Small', middle: 'Wheel head', large: 'Drying slab' },
}
/** Something of known length in a photo. */
export const KNOWN_THING_WORDS: Readonly<Record<KnownThingId, string>> = {
  card: 'A bank card, its long side', a4: 'A sheet of A4, its long side', letter: 'US letter, its long side',
  own: 'Something else',
}
/** What each measure is called; a few kinds have names of their own for them. */
const MEASURE: Readonly<Record<MeasureId, string>> = { width: 'Across', length: 'Long', depth: 'Deep' }
const OWN: Partial<Record<DoorKindId, Partial<Record<MeasureId, string>>>> = {
  tile: { depth: 'Thick' }, bat: { depth: 'Thick' }, bowl: { width: 'Across the rim' },
  cup: { width: 'Across the top', length: 'Across the bottom', depth: 'High' }, heart: { length: 'High', depth: 'Thick' },
  hand: { depth: 'Thick' }, box: { depth: 'High' }, face: { length: 'High' },
}
export const measureWords = (kind: DoorKindId, measure: MeasureId): string => OWN[kind]?.[measure] ?? MEASURE[measure]

export const BUCKET_WORDS: Readonly<Record<BucketSizeId, string>> = {
  bowl: 'A 1 litre bowl', two: 'A 2 litre bucket', five: 'A 5 litre bucket', ten: 'A 10 litre pail', tub: 'A 25 litre tub',
}

export const WAY_WORDS: Readonly<Record<DoorWay, { readonly name: string, readonly how: string }>> = {
  weighed: { name: 'I have a scale', how: 'Weigh both, and the mix comes out as meant.' },
  saturation: {
    name: 'No scale: by eye',
    how: 'Measure the water, then sift until powder stays dry on top in islands.',
  },
  scoops: { name: 'By cups', how: 'Scoop the powder loosely and level it off; don’t pack it.' },
}

export const DOOR_PROBLEM_WORDS: Readonly<Record<DoorProblem, string>> = {
  'no-measure': 'Enter its measures.',
  'no-mix': 'Enter the powder and the water that went into that mix.',
  'all-left': 'More is left than went into the mix. Check both.',
  'too-much': 'That is over 200 litres apiece. Check the measures and their units.',
}

const PARTS = [[0, ''], [0.25, 'a quarter'], [1 / 3, 'a third'], [0.5, 'half'], [2 / 3, 'two thirds'], [0.75, 'three quarters'],
  [1, '']] as const
/** How often, and how far, something is filled: `once`, `two thirds full`, `once and a third`. */
function timesFull(share: number): string {
  const whole = Math.floor(share), over = share - whole
  const [part, words] = PARTS.reduce((best, p) => Math.abs(p[0] - over) < Math.abs(best[0] - over) ? p : best)
  const n = whole + (part === 1 ? 1 : 0), times = n === 1 ? 'once' : n === 2 ? 'twice' : `${NUMBERS[n] ?? n} times`
  if (n === 0) return `${words || 'a little way'} full`
  return words ? `${times}, then ${words} full` : times
}

/** How the water is measured without a scale. @param full moulds' worth of it; none where water would spoil them */
export function waterWithoutScale(
  { full, pieces, buckets }: { readonly full: number | undefined, readonly pieces: number, readonly buckets: number },
): string {
  if (full === undefined) return 'Measure the water in cups'
  const moulds = pieces === 1 ? 'Fill the mould' : 'Fill the moulds'
  const which = buckets > 1 ? 'For each bucket, fill the moulds it is for' : moulds
  return `${which} with water ${timesFull(full)} and tip it into the bucket`
}

/** Before powder meets water, whoever it is. */
export const MASK = 'Put a mask on before you open the bag. Nothing goes down a drain.'
/** Where a person is cast. */
export const SKIN = {
  asks: 'Is a finished impression ready?',
  yes: 'Yes, it is ready to pour',
  no: 'Not yet',
  first: 'Then the impression comes first, in a material made for skin. Plaster sets hot enough to burn: it goes into '
    + 'the finished impression, never around skin.',
} as const
