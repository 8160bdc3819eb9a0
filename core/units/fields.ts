import type { Field } from './reading/read-quantity'
import type { UnitKind } from './units'

/**
 * What makes sense in a field, SI. Two readings of what was typed are told apart by it, and what lies outside is not
 * taken. Spans of the trade: common practice, no source.
 */
const DAY = 86_400
export type FieldId = 'batch' | 'dose' | 'holds' | 'size' | 'water' | 'air' | 'minutes' | 'days'
export const FIELDS: Readonly<Record<FieldId, Field>> = {
  /** Powder or water of a batch. */
  batch: { kind: 'mass', from: 0.005, to: 200 },
  /** An addition. */
  dose: { kind: 'mass', from: 5e-5, to: 5 },
  /** What a mould, bucket or jug holds. */
  holds: { kind: 'volume', from: 5e-6, to: 0.2 },
  /** A measure of a mould or a cast. */
  size: { kind: 'length', from: 1e-3, to: 3 },
  /** Water in the bucket. */
  water: { kind: 'temperature', from: 0, to: 60 },
  /** A room, or outdoors. */
  air: { kind: 'temperature', from: -40, to: 60 },
  /** At the bench. */
  minutes: { kind: 'time', from: 1, to: 3 * 3600 },
  /** Standing, drying. */
  days: { kind: 'time', from: 600, to: 120 * DAY, bare: 'day' },
}
/** Where a field says no more than its kind. */
export const ANY: Readonly<Record<UnitKind, Field>> = {
  mass: { kind: 'mass', from: 1e-5, to: 2000 },
  volume: { kind: 'volume', from: 5e-8, to: 2 },
  length: { kind: 'length', from: 1e-5, to: 100 },
  temperature: { kind: 'temperature', from: -40, to: 150 },
  time: { kind: 'time', from: 1, to: 366 * DAY },
}
