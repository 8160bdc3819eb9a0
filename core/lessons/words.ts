import type { LessonId, SourceTag } from './types'

/** The course: short lessons, each with something to see or do, and what its questions stand on. */

interface LessonWords {
  readonly title: string
  readonly lines: readonly string[]
  /** Something to try in the bucket: a scenario's id. */
  readonly tries?: string
}
export const LESSON_WORDS: Readonly<Record<LessonId, LessonWords>> = {
  'powder': {
    title: 'What the powder is',
    lines: [
      'Gypsum is a rock that holds water in its crystals. Heat drives three quarters of it off, and what is left is plaster.',
      'Give it water and it turns back: needles of gypsum grow, lock into each other, and warm up as they do. That is setting. It needs no air, and it is not drying.',
      'Walls have worn it for thousands of years; casts, pottery moulds and teeth came later. Dense grains, made under steam, need little water and give hard stones.',
    ],
  },
  'how-much': {
    title: 'How much',
    lines: [
      'The ratio is water to powder by weight: 70 means 70 g of water for 100 g of powder. By scoops it is something else.',
      'Powder takes room too: a litre of mix is about two thirds of water for plaster of Paris, half for gypsum cement.',
      'More water is weaker for good. Plan a spare, and have an overflow mould for what is left.',
    ],
    tries: 'short',
  },
  'wetting': {
    title: 'Water and powder',
    lines: [
      'Water first. Powder by the handful, over the whole surface, the next where there is clear water.',
      'Islands that stay mean enough; a dry crust all over means too much. Lift it off.',
      'Then hands off: small lumps drink through by themselves while it soaks, with the square of their size.',
    ],
    tries: 'islands',
  },
  'stirring': {
    title: 'Stirring',
    lines: [
      'Under the surface, along walls and floor, until no lump is felt and it coats the glove evenly.',
      'Each turn makes seeds, and each minute of stirring sets it sooner. A whisk beats air in.',
      'Old plaster in the bucket seeds it too. The mix is the clock: when it films, pour.',
    ],
    tries: 'first-bowl',
  },
  'filling': {
    title: 'Filling',
    lines: [
      'Low, slowly, at one point. Brush a first coat on what is fine; a little first, tilt and tap where parts hook upwards.',
      'Tap while it flows: the small bubbles take a minute. Dense stone lets nothing go by itself.',
      'The finest first, the plainest last. What has lost its gloss does not join.',
    ],
    tries: 'hand',
  },
  'setting': {
    title: 'Setting and opening',
    lines: [
      'It loses its gloss, is like cheese, gets warm, then cool. Warm is not done.',
      'Cold is slow. Frost before it has set spoils it. Thick gets hotter than thin.',
      'A forecast is a range: about two times in ten it is outside. Bags differ.',
    ],
    tries: 'thin-plate',
  },
  'drying': {
    title: 'Drying and cleaning up',
    lines: [
      'Set is not dry. It dries from its faces, in moving air, over days; then it is about twice as strong.',
      'Nothing down a drain: it sets there. Leftovers into the overflow mould or the bin, tools into the settling bucket.',
      'A flexible bucket is cleaned when what is in it has set: flex it.',
    ],
    tries: 'paint',
  },
  'safety': {
    title: 'What can hurt',
    lines: [
      'Never a hand, a foot or a face in setting plaster: it grips, gets hot and burns deeply. Skin touches the impression mix only.',
      'Mask from opening the bag until the powder is wet. Silica stays in the lungs: respirator, extraction, wet cleaning, its data sheet.',
      'Burning out and pouring metal need trained practice.',
    ],
  },
}

export const TAG_WORDS: Readonly<Record<SourceTag, string>> = {
  FP: 'first principles', M: 'this product’s model', CP: 'common practice, no source', P: 'published, from memory',
  T: 'your teacher',
}
