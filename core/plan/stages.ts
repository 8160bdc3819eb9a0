import type { SchoolId } from '../gypsum/schools'
import type { CoatOf, CoatWay } from './batches/coats'
import type { BubbleWay } from './bubbles'
import { SIGN_WORDS, type SignWords } from './step-words'

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

export interface SignFacts extends SignWords {
  readonly id: Sign
  readonly from: Stage
  readonly until: Stage
}

/** In the order of the keys 1 to 9; each is offered from one stage until another. */
const SIGN_FACTS: readonly Omit<SignFacts, keyof SignWords>[] = [
  {
    id: 'islands',
    from: 'sift',
    until: 'soak',
  },
  {
    id: 'crust',
    from: 'sift',
    until: 'soak',
  },
  { id: 'lumps', from: 'soak', until: 'fill' },
  {
    id: 'webbing',
    from: 'stir',
    until: 'set',
  },
  { id: 'will-not-pour', from: 'stir', until: 'set' },
  {
    id: 'gloss-gone',
    from: 'fill',
    until: 'set',
  },
  { id: 'warm', from: 'fill', until: 'set' },
  { id: 'warmest', from: 'clean-up', until: 'set' },
  {
    id: 'cold-again',
    from: 'clean-up',
    until: 'set',
  },
]

export const SIGNS: readonly SignFacts[] = SIGN_FACTS.map(x => ({ ...x, ...SIGN_WORDS[x.id] }))

/** One step on the bench: what is worded for it depends on nothing but this. */
export interface Step {
  readonly stage: Stage
  readonly school: SchoolId
  /** The clock that starts when this step is entered. */
  readonly starts?: 'wet' | 'stirring'
  /** Which coat of how many, when the piece is made in coats. */
  readonly coat?: CoatOf & { readonly way: CoatWay }
  /** How bubbles are driven out of what is filled, where that was said. */
  readonly bubbles?: BubbleWay
  /** Number of the batch that comes next, from 1. */
  readonly next?: number
}

type StepFacts = Pick<Step, 'stage' | 'starts'>

const SIFT: StepFacts = { stage: 'sift', starts: 'wet' }
const STIR: StepFacts = { stage: 'stir', starts: 'stirring' }
const SIFTED: readonly StepFacts[] = [{ stage: 'weigh' }, SIFT, { stage: 'soak' }, STIR]

/**
 * What each school does before it fills. In a bag the kneading both wets and stirs; powder that stands in the bucket
 * meets its water in the step that is else the sifting.
 */
const SCHOOL_STEPS: Readonly<Record<SchoolId, readonly StepFacts[]>> = {
  'weighed': SIFTED,
  'saturation': SIFTED,
  'scoops': SIFTED,
  'dumped': SIFTED,
  'bag': [{ stage: 'weigh' }, { stage: 'stir', starts: 'wet' }],
  'powder-first': [{ stage: 'weigh' }, SIFT, STIR],
}

/**
 * The steps of a run on the bench: `ready` once, then for each batch the school's own steps, fill and clean-up; `set`
 * last. A stage that the school does not have is left out, never shown empty.
 */
export function batchSteps(school: SchoolId, first: boolean): readonly Step[] {
  const steps: readonly StepFacts[] = [
    ...first ? [{ stage: 'ready' } as const] : [],
    ...SCHOOL_STEPS[school],
    { stage: 'fill' },
    { stage: 'clean-up' },
    { stage: 'set' },
  ]
  return steps.map(step => ({ ...step, school }))
}

/** Which of the nine stages this school has. */
export function schoolStages(school: SchoolId): readonly Stage[] {
  const own = SCHOOL_STEPS[school].map(({ stage }) => stage)
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
