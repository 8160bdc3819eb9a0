import type { Metres } from '../units/quantity'

/**
 * Things of known length that lie about, m: a bank card (ISO/IEC 7810, ID-1: 85.60 mm long), the long side of a sheet
 * of A4 (ISO 216: 297 mm) and of US letter (ANSI/ASME Y14.1: 11 in); from memory.
 */
export const KNOWN_THINGS = { card: 0.0856, a4: 0.297, letter: 0.2794 } as const satisfies Record<string, Metres>
export type KnownThingId = keyof typeof KNOWN_THINGS | 'own'
