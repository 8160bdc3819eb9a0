import type { JobStep, Link, PourLike, SignId, StepKind } from './types'
import type { CautionId, ChainId, HelpId, TaskId } from './words'

/**
 * Jobs to begin from. Minutes and windows are common practice, no source: a workshop changes them. Bounds are counted
 * from what is named: the end of a step, or a sign that the pour's own forecast gives.
 */
export interface Chain {
  readonly id: ChainId
  readonly steps: readonly JobStep[]
  readonly cautions: readonly CautionId[]
}

const HOUR = 60, DAY = 24 * HOUR

interface Lag { readonly least?: number, readonly most?: number, readonly missed?: HelpId }
const ended = (step: string, lag: Lag = {}): Link => ({ step, at: 'end', least: 0, ...lag })
/** After a sign of a pour. */
const once = (step: string, at: SignId, lag: Lag = {}): Link => ({ step, at, least: 0, ...lag })
/** Before a sign of a pour: at most so many minutes after it, none unless said. */
const before = (step: string, at: SignId, missed: HelpId, most = 0): Link => ({ step, at, most, missed })

const step = (kind: StepKind) => (id: string, task: TaskId, minutes: number, ...after: Link[]): JobStep =>
  ({ id, kind, task, minutes, after })
const hand = step('hand'), mix = step('mix'), until = step('until')
const pour = (id: string, task: TaskId, like: PourLike, ...after: Link[]): JobStep =>
  ({ id, kind: 'pour', task, minutes: 8, after, like })
const like = (kind: PourLike['kind'], size: PourLike['size'], classId: PourLike['classId'], count = 1): PourLike =>
  ({ kind, size, count, classId })

const IMPRESSION: readonly JobStep[] = [
  hand('try', 'dip-test', 5),
  hand('ready', 'ready-impression', 10, ended('try')),
  mix('mix', 'mix-impression', 3, ended('ready')),
  // 2 to 4 minutes to mix and place; it is firm after 5 to 7.
  hand('in', 'hand-in', 1, ended('mix', { most: 1, missed: 'new-impression' })),
  hand('hold', 'hold', 17, ended('in', { most: 0.5 })),
  hand('out', 'break-seal', 2, ended('hold', { most: 5, missed: 'skin-time' })),
  hand('check', 'check-impression', 3, ended('out', { most: 30 })),
  pour('pour', 'pour-impression', like('hand', 'middle', 'casting-plaster'), ended('check'),
    ended('out', { most: 4 * HOUR, missed: 'dried-impression' })),
  hand('tear', 'tear-off', 20, once('pour', 'open'), ended('pour', { least: 2 * HOUR, most: 20 * HOUR, missed: 'hard-tear' })),
  hand('clean', 'clean-cast', 30, ended('tear', { most: 3 * HOUR, missed: 'hard-nibs' })),
  until('dry', 'dries', 4 * DAY, ended('clean')),
]

const CLASS_KITS: readonly JobStep[] = [
  hand('weigh', 'weigh-kits', 40),
  hand('moulds', 'lay-moulds', 15, ended('weigh')),
  pour('pour', 'knead-bags', like('heart', 'small', 'plaster-of-paris', 20), ended('moulds')),
  hand('taps', 'tiny-taps', 3, ended('pour', { most: 2 }), before('pour', 'gloss', 'leave-it')),
  hand('open', 'pop-out', 20, once('pour', 'open'), ended('pour', { least: HOUR, most: DAY })),
  until('dry', 'dries', 2 * DAY, ended('open')),
]

const DENTAL: readonly JobStep[] = [
  hand('check', 'check-tray', 5),
  pour('teeth', 'pour-teeth', like('print', 'small', 'dental-type-3'), ended('check')),
  mix('base', 'pour-base', 5, ended('teeth', { least: 5, most: 40, missed: 'score-and-wet' }), once('teeth', 'gloss', { least: -5 })),
  hand('clear', 'clear-excess', 4, ended('base', { most: 4, missed: 'rasp-wet' })),
  until('set', 'sets', 40, ended('base')),
  hand('off', 'free-tray', 8, ended('set', { most: 2 * HOUR, missed: 'warm-water' })),
  hand('trim', 'trim-model', 20, ended('off', { most: DAY, missed: 'soak-trim' })),
]

const SKIN_MOULD: readonly JobStep[] = [
  hand('close', 'close-jacket', 15),
  pour('first', 'swill-coat', like('bowl', 'middle', 'casting-plaster'), ended('close')),
  mix('second', 'next-coat', 6, ended('first', { least: 4 }), before('first', 'gloss', 'score-and-wet', 10)),
  mix('third', 'next-coat', 6, ended('second', { least: 10, most: 25, missed: 'score-and-wet' })),
  hand('open', 'open-jacket', 10, ended('third', { least: 60 }), once('first', 'open')),
  hand('skin', 'peel-skin', 10, ended('open')),
  until('dry', 'dries', 5 * DAY, ended('skin')),
]

const GROUND_PRINT: readonly JobStep[] = [
  hand('photo', 'photo-print', 5),
  hand('ring', 'set-ring', 10, ended('photo')),
  pour('pour', 'pour-print', like('print', 'middle', 'plaster-of-paris'), ended('ring', { most: 30, missed: 'look-again' })),
  hand('initials', 'scratch-day', 2, ended('pour', { least: 3 }), before('pour', 'gloss', 'write-later')),
  hand('lift', 'lift-print', 15, once('pour', 'open'), ended('pour', { least: 25 })),
  until('air', 'airs', DAY, ended('lift')),
  hand('brush', 'brush-print', 15, ended('air')),
]

const DRYING_SLAB: readonly JobStep[] = [
  hand('pan', 'level-pan', 8),
  pour('first', 'pour-slab', like('bat', 'large', 'pottery-plaster'), ended('pan')),
  hand('water', 'drag-water', 3, ended('first', { least: 10 }), before('first', 'gloss', 'wait-water', 10)),
  hand('out', 'slab-out', 8, once('first', 'open'), ended('first', { least: 45 })),
  pour('second', 'pour-slab-again', like('bat', 'large', 'pottery-plaster'), ended('out')),
  hand('out-2', 'slab-out', 8, once('second', 'open'), ended('second', { least: 45 })),
  until('dry', 'dries', 7 * DAY, ended('out')),
]

const HUMP_MOULDS: readonly JobStep[] = [
  until('forms', 'forms-dry', 2 * DAY),
  hand('film', 'oil-forms', 15, ended('forms')),
  pour('pour', 'pour-hump', like('bowl', 'large', 'pottery-plaster', 3), ended('film')),
  hand('form-off', 'flex-off', 15, ended('pour', { least: 2 * HOUR }), once('pour', 'open')),
  hand('edge', 'scrape-edge', 15, ended('form-off', { most: 6 * HOUR, missed: 'rasp-wet' })),
  until('dry', 'dries-clay', 7 * DAY, ended('edge')),
]

const TWO_PART: readonly JobStep[] = [
  hand('bed', 'bed-model', 45),
  pour('first', 'pour-half', like('box', 'middle', 'pottery-plaster'), ended('bed')),
  hand('keys', 'clay-out', 25, once('first', 'gloss', { least: 20 }), ended('first', { most: DAY, missed: 'clay-dried' })),
  hand('soap', 'soap-half', 15, ended('keys')),
  pour('second', 'pour-other-half', like('box', 'middle', 'pottery-plaster'), ended('soap', { least: 5, most: DAY, missed: 'soap-again' })),
  hand('apart', 'open-halves', 15, once('second', 'open')),
  until('dry', 'both-dry', 7 * DAY, ended('apart')),
]

const SHELL: readonly JobStep[] = [
  hand('ready', 'clay-reservoir', 30),
  hand('weigh', 'dry-parts', 10, ended('ready')),
  pour('face', 'face-coat', like('bowl', 'small', 'plaster-silica'), ended('weigh')),
  hand('look', 'second-look', 2, ended('face', { most: 2 }), before('face', 'gloss', 'leave-it')),
  // Again at once: the face coat still has its gloss, or has only just lost it.
  mix('second', 'shell-coat', 12, ended('look'), before('face', 'gloss', 'score-and-wet', 10)),
  mix('third', 'shell-coat', 12, ended('second', { least: 5, most: 20, missed: 'score-and-wet' })),
  until('still', 'stands-still', 30, ended('third')),
  hand('clay', 'dig-clay', 20, ended('still', { most: 30, missed: 'clay-dried' })),
  until('dry', 'dries', 3 * DAY, ended('clay')),
]

const DAMP_STORE: readonly JobStep[] = [
  pour('first', 'pour-leftover', like('box', 'middle', 'pottery-plaster')),
  hand('score', 'score-and-wet', 5, once('first', 'gloss', { least: 5 })),
  mix('bond', 'bonding-coat', 4, ended('score', { most: 5, missed: 'wet-again' })),
  mix('rest', 'pour-rest', 6, ended('bond', { most: 6, missed: 'score-and-wet' })),
  hand('smooth', 'smooth-top', 4, ended('rest', { least: 3, most: 10, missed: 'rasp-wet' })),
  until('damp', 'kept-damp', DAY, ended('smooth')),
]

const LATEX_SLEEVE: readonly JobStep[] = [
  hand('box', 'hang-sleeve', 10),
  pour('pour', 'roll-and-fill', like('cup', 'middle', 'plaster-of-paris'), ended('box')),
  hand('tap', 'tap-below', 2, ended('pour', { most: 1 }), before('pour', 'gloss', 'leave-it')),
  hand('peel', 'peel-sleeve', 10, once('pour', 'open'), ended('pour', { least: 2 * HOUR })),
  until('dry', 'dries', 4 * DAY, ended('peel')),
]

const SMALL_PIECES: readonly JobStep[] = [
  hand('lay', 'lay-moulds', 5),
  pour('pour', 'pour-six', like('heart', 'small', 'casting-plaster', 6), ended('lay')),
  hand('scrape', 'scrape-flat', 3, ended('pour', { most: 4 }), before('pour', 'gloss', 'rasp-wet')),
  hand('tools', 'clean-tools', 5, ended('scrape', { most: 15, missed: 'soak-tools' })),
  hand('open', 'open-and-box', 6, once('pour', 'open'), ended('pour', { least: 30 })),
]

const PROPS: readonly JobStep[] = [
  hand('ready', 'lay-moulds', 5),
  pour('pour', 'pour-thin', like('bowl', 'small', 'plaster-of-paris', 2), ended('ready')),
  hand('taps', 'tiny-taps', 2, ended('pour', { most: 1 })),
  hand('open', 'open-gently', 5, once('pour', 'open'), ended('pour', { least: 30 })),
  until('dry', 'dries', 14 * HOUR, ended('open')),
  hand('paint', 'paint', 30, ended('dry')),
]

export const CHAINS: readonly Chain[] = [
  { id: 'impression', steps: IMPRESSION, cautions: ['skin', 'mask'] },
  { id: 'shell', steps: SHELL, cautions: ['silica', 'hot'] },
  { id: 'two-part', steps: TWO_PART, cautions: ['mask'] },
  { id: 'small-pieces', steps: SMALL_PIECES, cautions: ['mask'] },
  { id: 'class-kits', steps: CLASS_KITS, cautions: ['mask', 'skin'] },
  { id: 'dental', steps: DENTAL, cautions: ['licensed', 'mask'] },
  { id: 'ground-print', steps: GROUND_PRINT, cautions: ['mask'] },
  { id: 'drying-slab', steps: DRYING_SLAB, cautions: ['mask'] },
  { id: 'hump-moulds', steps: HUMP_MOULDS, cautions: ['mask'] },
  { id: 'skin-mould', steps: SKIN_MOULD, cautions: ['mask'] },
  { id: 'latex-sleeve', steps: LATEX_SLEEVE, cautions: ['mask'] },
  { id: 'damp-store', steps: DAMP_STORE, cautions: ['mask'] },
  { id: 'props', steps: PROPS, cautions: ['eyes', 'mask'] },
]

/** A job like a chain, or like one that was done before: the same steps, and nothing of it begun. */
export const begunAnew = (steps: readonly JobStep[]): JobStep[] =>
  steps.map(({ pour: _, began: __, ended: ___, ...rest }) => ({ ...rest, after: rest.after.map(l => ({ ...l })) }))
