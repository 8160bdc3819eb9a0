import type { SchoolId } from '../gypsum/schools'

/** The nine ripples, and clean-up, which runs beside setting and has a clock of its own. */
export type Stage = 'gauge' | 'ready' | 'weigh' | 'sift' | 'soak' | 'stir' | 'fill' | 'clean-up' | 'set' | 'dry'

export const NINE_STAGES: readonly Exclude<Stage, 'clean-up'>[] = [
  'gauge',
  'ready',
  'weigh',
  'sift',
  'soak',
  'stir',
  'fill',
  'set',
  'dry',
]

/** Signs a caster can see or feel; 1 to 9 on the bench. */
export type Sign
  = | 'islands'
    | 'crust'
    | 'lumps'
    | 'webbing'
    | 'will-not-pour'
    | 'gloss-gone'
    | 'warm'
    | 'warmest'
    | 'cold-again'

export interface SignFacts {
  readonly id: Sign
  readonly words: string
  readonly meaning: string
  readonly from: Stage
  readonly until: Stage
}

/** In the order of the keys 1 to 9; each is offered from one stage until another. */
export const SIGNS: readonly SignFacts[] = [
  {
    id: 'islands',
    words: 'Islands stay dry',
    meaning: 'Powder stays dry on top: enough powder is in.',
    from: 'sift',
    until: 'soak',
  },
  {
    id: 'crust',
    words: 'Crust all over',
    meaning: 'All dry on top: too much, lift some off.',
    from: 'sift',
    until: 'soak',
  },
  { id: 'lumps', words: 'Lumps', meaning: 'Dry lumps in the mix.', from: 'soak', until: 'fill' },
  {
    id: 'webbing',
    words: 'Webbing',
    meaning: 'It films between spread fingers and holds a trail.',
    from: 'stir',
    until: 'set',
  },
  { id: 'will-not-pour', words: 'Will not pour', meaning: 'Too stiff to level itself.', from: 'stir', until: 'set' },
  {
    id: 'gloss-gone',
    words: 'Gloss gone',
    meaning: 'The wet shine has left the face: initial set.',
    from: 'fill',
    until: 'set',
  },
  { id: 'warm', words: 'Warm', meaning: 'Noticeably warm to the hand.', from: 'fill', until: 'set' },
  { id: 'warmest', words: 'Warmest', meaning: 'As warm as it gets.', from: 'clean-up', until: 'set' },
  {
    id: 'cold-again',
    words: 'Cool again',
    meaning: 'Back to room temperature after its heat: set, not yet dry.',
    from: 'clean-up',
    until: 'set',
  },
]

export interface Step {
  readonly stage: Stage
  readonly instruction: string
  readonly detail: string
  /** What the one big button says: what the person has just finished. */
  readonly done: string
  /** The clock that starts when this step is entered. */
  readonly starts?: 'wet' | 'stirring'
}

type StepText = Omit<Step, 'stage'>

const COMMON: Readonly<Record<'ready' | 'stir' | 'fill' | 'clean-up' | 'set', StepText>> = {
  'ready': {
    instruction: 'Ready the moulds and the table',
    detail: 'Level, sealed, released. Overflow mould, bin and rinse bucket at hand. Mask on before the bag is opened.',
    done: 'All ready',
  },
  'stir': {
    instruction: 'Stir under the surface',
    detail: 'Slowly, feeling for lumps, without folding air in. Stop when it coats a glove evenly.',
    done: 'Smooth, start pouring',
    starts: 'stirring',
  },
  'fill': {
    instruction: 'Tap the bucket, then pour',
    detail:
      'Low and slow, at one point. Thin first coat over all detail, half fill, tap, top up. Stop when it thickens.',
    done: 'All poured',
  },
  'clean-up': {
    instruction: 'Clean up while it sets',
    detail: 'Leftover to its place, hands and tools into the settling bucket. Nothing down a drain.',
    done: 'Bucket clean',
  },
  'set': { instruction: 'Leave it alone', detail: 'Do not move, lean on or tap the moulds.', done: 'Open the moulds' },
}

const SIFT: StepText = {
  instruction: 'Sift the powder in',
  detail: 'A little at a time over the whole surface. Do not stir. Mask stays on.',
  done: 'All in, start the soak',
  starts: 'wet',
}
const SOAK: StepText = {
  instruction: 'Let it soak',
  detail: 'Hands off until it is wet through.',
  done: 'Soaked, start stirring',
}

const SCHOOL_STEPS: Readonly<Record<SchoolId, readonly (readonly [Stage, StepText])[]>> = {
  weighed: [
    ['weigh', {
      instruction: 'Weigh water, then powder',
      detail: 'Water first, into the mixing bucket. Powder into a second, dry one.',
      done: 'Start sifting',
    }],
    ['sift', SIFT],
    ['soak', SOAK],
    ['stir', COMMON.stir],
  ],
  saturation: [
    ['weigh', {
      instruction: 'Measure the water',
      detail: 'To the water line on the bucket. The powder will tell you when it is enough.',
      done: 'Start sifting',
    }],
    ['sift', {
      ...SIFT,
      instruction: 'Sift until islands stay dry',
      detail:
        'A little at a time over the whole surface, still water, no stirring. Stop when dry islands stay. Mask stays on.',
    }],
    ['soak', SOAK],
    ['stir', COMMON.stir],
  ],
  scoops: [
    ['weigh', {
      instruction: 'Count the water in',
      detail: 'Level scoops of water into the mixing bucket, powder scoops counted out beside it.',
      done: 'Start sifting',
    }],
    ['sift', SIFT],
    ['soak', SOAK],
    ['stir', COMMON.stir],
  ],
  bag: [
    ['weigh', {
      instruction: 'Measure the water',
      detail: 'By the marked bottle. The powder is already in its bag. Mask on until it is wet.',
      done: 'Water goes in',
    }],
    ['stir', {
      instruction: 'Water in, press the air out, knead',
      detail: 'Seal the bag and knead until no white is left, corners too.',
      done: 'No white left, cut the corner',
      starts: 'wet',
    }],
  ],
  dumped: [
    ['weigh', {
      instruction: 'Weigh water, then powder',
      detail: 'Water first, into the mixing bucket. All the powder into a second, dry one.',
      done: 'Tip it in',
    }],
    ['sift', {
      instruction: 'All the powder in at once',
      detail: 'Tip it in low so that it does not dust. Mask stays on.',
      done: 'All in, let it wet',
      starts: 'wet',
    }],
    ['soak', {
      instruction: 'Let it wet through',
      detail: 'Half a minute to a minute, hands off.',
      done: 'Wetted, start stirring',
    }],
    ['stir', COMMON.stir],
  ],
}

/**
 * The steps of a run on the bench: `ready` once, then for each batch the school's own steps, fill and clean-up; `set`
 * last.
 * A stage that the school does not have is left out, never shown empty.
 */
export function batchSteps(school: SchoolId, first: boolean): readonly Step[] {
  const steps: Step[] = first ? [{ stage: 'ready', ...COMMON.ready }] : []
  for (const [stage, text] of SCHOOL_STEPS[school]) steps.push({ stage, ...text })
  // In a bag the kneading both wets and stirs.
  if (school === 'bag')
    steps.push({
      stage: 'fill',
      ...COMMON.fill,
      instruction: 'Cut a corner and pour',
      detail: 'Deepest places first, low and slow, over a stick or spoon so that it cannot dig in.',
    })
  else steps.push({ stage: 'fill', ...COMMON.fill })
  steps.push({ stage: 'clean-up', ...COMMON['clean-up'] }, { stage: 'set', ...COMMON.set })
  return steps
}

/** Which of the nine stages this school has. */
export function schoolStages(school: SchoolId): readonly Stage[] {
  const own = SCHOOL_STEPS[school].map(([stage]) => stage)
  return NINE_STAGES.filter(s =>
    s === 'gauge' || s === 'ready' || s === 'fill' || s === 'set' || s === 'dry' || own.includes(s),
  )
}

const ORDER: readonly Stage[] = ['gauge', 'ready', 'weigh', 'sift', 'soak', 'stir', 'fill', 'clean-up', 'set', 'dry']

/** Signs worth offering at a stage. */
export function signsAt(stage: Stage): readonly SignFacts[] {
  const now = ORDER.indexOf(stage)
  return SIGNS.filter(s => now >= ORDER.indexOf(s.from) && now <= ORDER.indexOf(s.until))
}
