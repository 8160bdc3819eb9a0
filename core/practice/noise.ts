import { normalQuantile } from '../numeric/sampling'

/**
 * Chance that belongs to what it is drawn for: a hash of seed, name and counter, never a stream. An act more or less
 * leaves all other draws as they were, so that two runs differ by that act alone (common random numbers).
 * Mixing: Wang's avalanche over FNV-1a (public domain forms, from memory); good enough to try things out.
 */

/** @returns a number between 0 and 1, both left out */
export function uniform(seed: number, name: string, counter = 0): number {
  let h = 0x811c9dc5 ^ seed
  for (let i = 0; i < name.length; i++) h = Math.imul(h ^ name.charCodeAt(i), 0x01000193)
  h = Math.imul(h ^ counter, 0x01000193)
  h = Math.imul(h ^ h >>> 16, 0x85ebca6b)
  h = Math.imul(h ^ h >>> 13, 0xc2b2ae35)
  return ((h ^ h >>> 16) >>> 0) / 4294967296 * (1 - 2e-10) + 1e-10
}

/** A standard normal number, within four deviations. */
export const normal = (seed: number, name: string, counter = 0): number =>
  Math.max(-4, Math.min(4, normalQuantile(uniform(seed, name, counter))))
