import { normalQuantile } from '~core/numeric/sampling'

/** Repeatable chance for the demo: the same seed gives the same workshop. mulberry32. */
export interface Chance { next(): number, normal(): number, id(): string }

export function chance(seed: number): Chance {
  let state = seed >>> 0
  const next = () => {
    state = (state + 0x6D2B79F5) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
  const hex = (n: number) => Array.from({ length: n }, () => Math.floor(next() * 16).toString(16)).join('')
  return {
    next,
    normal: () => normalQuantile(Math.min(0.995, Math.max(0.005, next()))),
    id: () => `${hex(8)}-${hex(4)}-4${hex(3)}-a${hex(3)}-${hex(12)}`,
  }
}
