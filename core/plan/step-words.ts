import type { SchoolId } from '../gypsum/schools'
import type { CoatWay } from './batches/coats'
import type { BubbleWay } from './bubbles'
import type { Sign, Stage, Step } from './stages'

/**
 * What is said at each step, and of what is seen and how one works. Apart from what planning says: every page that
 * lists pours needs these, and few need the rest. Nothing reads these sentences.
 */

/** Ways of working in coats. */
interface CoatWayWords {
  readonly name: string
  readonly how: string
}

export const COAT_WAY_WORDS: Readonly<Record<CoatWay, CoatWayWords>> = {
  backed: {
    name: 'Face coat, then the rest',
    how: 'A thin coat brushed into all detail; the rest behind it while the face still has its gloss.',
  },
  shell: {
    name: 'Shell built up by hand',
    how:
      'Coat on coat to an even thickness; each waits until a drawn finger leaves a standing peak, and is left rough for the next.',
  },
  swilled: {
    name: 'Hollow, swilled',
    how: 'Pour in, roll it over every face until it stays, pour out; again for each coat.',
  },
  base: {
    name: 'Cast, then a base on it',
    how: 'Two mixes: the cast first, its back left rough and keyed, then the base.',
  },
}

/** How bubbles are driven out: by name, and what filling is then. */
export const BUBBLE_WAY_WORDS: Readonly<Record<BubbleWay, { readonly name: string, readonly fill: string }>> = {
  tap: {
    name: 'Tapped',
    fill: 'Low and slow, at one point. Thin first coat over all detail, half fill, tap, top up. Stop when it thickens.',
  },
  brush: {
    name: 'Brushed on the face',
    fill: 'Brush a thin coat over all detail first, then pour low and slow, at one point. Leave it alone after that.',
  },
  table: {
    name: 'On a vibrating table',
    fill: 'Table on low. Thin first coat over all detail, then low and slow, at one point. Table off as it thickens.',
  },
}

/** Signs a caster can see or feel. */
export interface SignWords {
  readonly words: string
  readonly meaning: string
}

export const SIGN_WORDS: Readonly<Record<Sign, SignWords>> = {
  'islands': {
    words: 'Islands stay dry',
    meaning: 'Powder stays dry on top: enough powder is in.',
  },
  'crust': {
    words: 'Crust all over',
    meaning: 'All dry on top: too much, lift some off.',
  },
  'lumps': {
    words: 'Lumps',
    meaning: 'Dry lumps in the mix.',
  },
  'webbing': {
    words: 'Webbing',
    meaning: 'It films between spread fingers and holds a trail.',
  },
  'will-not-pour': {
    words: 'Will not pour',
    meaning: 'Too stiff to level itself.',
  },
  'gloss-gone': {
    words: 'Gloss gone',
    meaning: 'The wet shine has left the face: initial set.',
  },
  'warm': {
    words: 'Warm',
    meaning: 'A hand on the outside feels it warming.',
  },
  'warmest': {
    words: 'Warmest',
    meaning: 'As warm as it gets.',
  },
  'cold-again': {
    words: 'Cool again',
    meaning: 'The outside no longer feels warm: set, not yet dry. A thick one stays warm within for hours.',
  },
}

interface StepWords {
  readonly instruction: string
  readonly detail: string
  /** What the one big button says: what the person has just finished. */
  readonly done: string
}

/** Wet powder does not dust; a bag that is closed does. */
const MASK_OFF = 'Once all of it is wet the mask may come off.'

/** Stages whose words are the same whatever the school. */
const READY: StepWords = {
  instruction: 'Get the moulds and table ready',
  detail: 'Level, sealed, released. Overflow mould, bin and rinse bucket at hand. Mask on before the bag is opened.',
  done: 'All ready',
}
const SIFT: StepWords = {
  instruction: 'Sift the powder in',
  detail: 'A little at a time over the whole surface. Do not stir. Mask stays on.',
  done: 'All in, start the soak',
}
const SOAK: StepWords = {
  instruction: 'Let it soak',
  detail: `Hands off until it is wet through. ${MASK_OFF}`,
  done: 'Soaked, start stirring',
}
const STIR: StepWords = {
  instruction: 'Stir under the surface',
  detail: 'Slowly, feeling for lumps, without folding air in. Stop when it coats a glove evenly.',
  done: 'Smooth, start pouring',
}
const FILL: StepWords = {
  instruction: 'Tap the bucket, then pour',
  detail: BUBBLE_WAY_WORDS.tap.fill,
  done: 'All poured',
}
const CLEAN_UP: StepWords = {
  instruction: 'Clean up while it sets',
  detail: 'Mask on again before the bag is closed. Leftover to its place, hands and tools into the settling bucket. '
    + 'Nothing down a drain.',
  done: 'Bucket clean',
}
const SET: StepWords = {
  instruction: 'Leave it alone',
  detail: 'Do not move, lean on or tap the moulds.',
  done: 'Open the moulds',
}
/** Gauging and drying are stages of the piece, not steps at the bench. */
const NO_STEP: StepWords = { instruction: '', detail: '', done: '' }

const COMMON: Readonly<Record<Stage, StepWords>> = {
  'gauge': NO_STEP,
  'ready': READY,
  'weigh': {
    instruction: 'Weigh water, then powder',
    detail: 'Water first, into the mixing bucket. Powder into a second, dry one.',
    done: 'Start sifting',
  },
  'sift': SIFT,
  'soak': SOAK,
  'stir': STIR,
  'fill': FILL,
  'clean-up': CLEAN_UP,
  'set': SET,
  'dry': NO_STEP,
}

/** Where a school has its own words for a stage. */
const OF_SCHOOL: Readonly<Record<SchoolId, Partial<Readonly<Record<Stage, StepWords>>>>> = {
  'weighed': {},
  'saturation': {
    weigh: {
      instruction: 'Measure the water',
      detail: 'To the water line on the bucket. The powder will tell you when it is enough.',
      done: 'Start sifting',
    },
    sift: {
      ...SIFT,
      instruction: 'Sift until islands stay dry',
      detail:
        'A little at a time over the whole surface, still water, no stirring. Stop when dry islands stay. Mask stays on.',
    },
  },
  'scoops': {
    weigh: {
      instruction: 'Count the water in',
      detail: 'Level scoops of water into the mixing bucket, powder scoops counted out beside it.',
      done: 'Start sifting',
    },
  },
  'bag': {
    weigh: {
      instruction: 'Measure the water',
      detail: 'By the marked bottle. The powder is already in its bag. Mask on until it is wet.',
      done: 'Water goes in',
    },
    stir: {
      instruction: 'Water in, press the air out, knead',
      detail: 'Seal the bag and knead until no white is left, corners too.',
      done: 'No white left, cut the corner',
    },
    fill: {
      ...FILL,
      instruction: 'Cut a corner and pour',
      detail: 'Deepest places first, low and slow, over a stick or spoon so that it cannot dig in.',
    },
  },
  'dumped': {
    weigh: {
      instruction: 'Weigh water, then powder',
      detail: 'Water first, into the mixing bucket. All the powder into a second, dry one.',
      done: 'Tip it in',
    },
    sift: {
      instruction: 'All the powder in at once',
      detail: 'Tip it in low so that it does not dust. Mask stays on.',
      done: 'All in, let it wet',
    },
    soak: {
      instruction: 'Let it wet through',
      detail: `Half a minute to a minute, an investment about three. Hands off. ${MASK_OFF}`,
      done: 'Wetted, start stirring',
    },
  },
  'powder-first': {
    weigh: {
      instruction: 'Weigh the powder, fill the jug',
      detail: 'Powder into the mixing bucket, more water into a jug than it should need. Mask on.',
      done: 'Water goes in',
    },
    sift: {
      instruction: 'Most of the water in',
      detail: 'Down the side, so that it does not dust, and the bucket tilted so that it runs under the powder.',
      done: 'In, start stirring',
    },
    stir: {
      instruction: 'Stir, and let water in until it runs',
      detail: 'Scrape the bottom and its corner first: powder stays dry there. Then a splash at a time; it thins as it is stirred. '
        + 'The mask stays on until no dry powder is left.',
      done: 'Runs as I want, start pouring',
    },
  },
}

type CoatOfWay = NonNullable<Step['coat']>

/** What a coat is called within a sentence. */
const coatName = (way: CoatWay, number: number) => {
  if (way !== 'base') return `coat ${number}`
  return number === 1 ? 'the cast' : 'the base'
}

const FACE: StepWords = {
  instruction: 'Lay the face coat',
  detail: 'Brush or flick it thinly into all detail, blow the bubbles off, leave no puddle.',
  done: 'Face coat on',
}

/** How a coat is laid, by the way of working. */
const LAID: Readonly<Record<CoatWay, (coat: CoatOfWay, plain: StepWords) => StepWords>> = {
  swilled: ({ way, number }) => ({
    instruction: `Swill ${coatName(way, number)} over every face`,
    detail: 'Pour in, roll and tip until it stays where it is, pour the rest back. Rims and corners last.',
    done: 'Swilled all over',
  }),
  base: ({ number }, plain) => number === 1
    ? { ...plain, detail: `${plain.detail} Roughen and key the back while it is soft.` }
    : {
        instruction: 'Set the base on',
        detail: 'Wet the back, work a thin coat into it, then the rest. Nowhere thinner than its list says.',
        done: 'Base on',
      },
  backed: ({ way, number, of }) => number === 1
    ? FACE
    : {
        instruction: number === of ? 'Fill behind the face' : `Lay ${coatName(way, number)}`,
        detail: 'Press the first of it into the face, then the rest; leave no gap between the coats.',
        done: 'All behind it',
      },
  shell: ({ way, number, of }) => number === 1
    ? FACE
    : {
        instruction: `Build ${coatName(way, number)} evenly`,
        detail: number === of
          ? 'Even thickness, edges too; then smooth the outside.'
          : 'Even thickness, edges too; leave it rough.',
        done: 'Coat on',
      },
}

/** What a step is called above what it says: one word. */
export function stepName({ stage, school }: Pick<Step, 'stage' | 'school'>): string {
  if (stage === 'sift' && school === 'powder-first') return 'Water'
  return stage.charAt(0).toUpperCase() + stage.slice(1)
}

type Worded = Pick<Step, 'stage' | 'school' | 'coat' | 'next' | 'bubbles'>
/**
 * What the bench says at a step: what to do, how, and on its button what has been done.
 * @example stepWords({ stage: 'soak', school: 'weighed' }).instruction // “Let it soak”
 */
export function stepWords({ stage, school, coat, next, bubbles }: Worded): StepWords {
  const usual = OF_SCHOOL[school][stage] ?? COMMON[stage]
  const plain = bubbles && school !== 'bag' ? { ...usual, detail: BUBBLE_WAY_WORDS[bubbles].fill } : usual
  if (coat && stage === 'fill') return LAID[coat.way](coat, plain)
  if (coat && stage === 'clean-up' && coat.number < coat.of)
    return {
      ...plain,
      detail: `${plain.detail} Leave the face rough: the next coat grips it.`,
      done: `Bucket clean, on to ${coatName(coat.way, coat.number + 1)}`,
    }
  if (!coat && next !== undefined) return { ...plain, done: `Bucket clean, on to bucket ${next}` }
  return plain
}
