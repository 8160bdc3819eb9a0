import type { Standing } from '../drying/places'
import type { Celsius, Kilograms, Metres, Seconds } from '../units/quantity'
import type { DefectId, TroubleId } from './defects'
import type { Sign, Stage } from '../plan/stages'
import type { Taught } from '../plan/types'
import type { CauseId } from './causes'

/** Milliseconds since 1970 on the workshop's clock. */
export type Instant = number

/** Where the rest of a mix went. */
export type LeftoverPlace = 'overflow' | 'bin' | 'none'
export type Verdict = 'good' | 'second' | 'waste'

/**
 * A fault and where it is, in shares of the width and height of the drawing from its upper left: of the face, or of one
 * photo.
 */
export interface FaultMark {
  readonly defect: DefectId
  readonly severity: Severity
  readonly x: number
  readonly y: number
  readonly photo?: string
}
/** 1 hardly seen, 2 plain, 3 spoils the piece. */
export type Severity = 1 | 2 | 3

/** What was measured, what it should be (of the model, before the plaster expands), and between what it has to be. */
export interface Measured {
  readonly what: string
  readonly value: Metres
  readonly nominal?: Metres
  readonly least?: Metres
  readonly most?: Metres
}

/** What is told with each kind of thing that can happen to a pour. */
interface HappeningData {
  /**
   * A step of a batch begins. `from` is where the device saw the batch when this was told (version 2): a step that was
   * begun already, told by a device that did not know it, is the same step told again. Without it (version 1) the step
   * is gone back to.
   */
  'stage': { readonly stage: Stage, readonly from?: Stage | 'unbegun' }
  'weighed': { readonly what: 'water' | 'powder', readonly mass: Kilograms, readonly how: 'scale' | 'jug' | 'scoops' }
  /**
   * What the jug holds before any of its water goes onto the powder, and what is left in it once the mix runs (version
   * 4): between them stands what went in.
   */
  'jug': { readonly when: 'before' | 'after', readonly mass: Kilograms }
  'mark': { readonly sign: Sign }
  'filled': { readonly cast: string }
  'leftover': { readonly where: LeftoverPlace }
  /** The bucket of a batch is clean, while another batch is already under way. */
  'cleaned': Readonly<Record<string, never>>
  /** A thermometer: in the mix or cast of a batch, in the room, or in the water before it is used. */
  'temperature': { readonly celsius: Celsius, readonly where: 'cast' | 'room' | 'water' }
  /**
   * What was forecast once something was marked: when each kind of mould may be opened, seconds after wetting, and what
   * it tells of the bag's speed.
   */
  'foreseen': {
    readonly open: Readonly<Record<string, { readonly from: Seconds, readonly to: Seconds }>>
    readonly taught?: Taught
  }
  'trouble': { readonly trouble: TroubleId }
  'note': { readonly text: string }
  'opened': { readonly cast: string }
  'judged': {
    readonly cast: string
    readonly verdict: Verdict
    readonly defects: readonly DefectId[]
    readonly note: string
  }
  /** Faults of a cast, each at its place on the sketch of its face or on a photo; drawn anew each time. */
  'faults': { readonly cast: string, readonly marks: readonly FaultMark[] }
  /** One measure of a cast, m; the same measure again takes the place of the last. */
  'measured': Measured & { readonly cast: string }
  /** On the shelf: where a cast stands and in what air, what it weighs, how it feels, and that it was wetted again. */
  'placed': { readonly cast: string } & Omit<Standing, 'day'>
  'cast-weighed': { readonly cast: string, readonly mass: Kilograms }
  'felt': { readonly cast: string, readonly how: 'cold' | 'dry' }
  'wetted': { readonly cast: string }
  /** Someone found what was behind a defect of a cast. */
  'cause': { readonly cast: string, readonly defect: DefectId, readonly cause: CauseId }
  'finished': { readonly cast: string }
  'abandoned': { readonly reason: string }
  'undo': { readonly event: string }
}

/** The version in which entries are written now; what each of them brought stands in contract/versions.ts. */
export const EVENT_VERSION = 5

/** What can happen to a pour. A correction is a further event; nothing is ever edited. */
export type Happening = {
  [K in keyof HappeningData]: { readonly kind: K, readonly data: HappeningData[K] }
}[keyof HappeningData]

export type HappeningKind = Happening['kind']

export type PourEvent = Happening & {
  /** Made on the device; the same id twice is the same event. */
  readonly id: string
  readonly pour: string
  /** Batch it belongs to, from 0; casts carry theirs in their id. */
  readonly batch?: number
  readonly version: 1 | 2 | 3 | 4 | typeof EVENT_VERSION
  readonly happenedAt: Instant
  readonly recordedAt: Instant
  readonly device: string
  readonly deviceSeq: number
  readonly actor: string
  /** The entry that was not taken, and that this one stands for. */
  readonly mends?: string
  /** By how much its moment may be otherwise, ms: the device's clocks parted while no server was heard. */
  readonly doubt?: number
}

/**
 * The order of the fold. Ties on one device are broken by its own counter, between devices by their names, so that
 * every place agrees.
 */
export function compareEvents(a: PourEvent, b: PourEvent): number {
  return a.happenedAt - b.happenedAt || (a.device < b.device ? -1 : a.device > b.device ? 1 : 0)
    || a.deviceSeq - b.deviceSeq || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0)
}

/**
 * Events in fold order without those that were taken back; an undo may itself be taken back. An undo counts only after
 * what it names.
 */
export function standing(events: readonly PourEvent[]): readonly PourEvent[] {
  const unique = [...new Map(events.map(e => [e.id, e])).values()].sort(compareEvents)
  const dead = new Set<string>()
  const place = new Map(unique.map((e, i) => [e.id, i]))
  for (let i = unique.length - 1; i >= 0; i--) {
    const e = unique[i]!
    if (e.kind === 'undo' && !dead.has(e.id) && (place.get(e.data.event) ?? Infinity) < i) dead.add(e.data.event)
  }
  return unique.filter(e => !dead.has(e.id))
}
