import { plainly, type Wanted } from './board'
import { fill, leftAfter, type Ground } from './rules'
import { fitsBucket, sumOf, type Round } from './round'

/** Small changes to a list of buckets, one of which may make a better plan. */

/** Ways of fitting a bucket in, drawn anew one by one. */
const GENES: readonly ((wanted: Wanted, draw: () => number, round: Round) => Partial<Wanted>)[] = [
  (_, draw) => ({ hold: draw() < 0.5 ? 0 : 1 + Math.floor(draw() * 5) }),
  ({ counts }, draw, { mixing }) => {
    const later = Math.floor(draw() ** 2 * ((mixing(counts).cleanWithin ?? 30) + 1))
    return { cleanAfter: [0, Infinity, later][Math.floor(draw() * 3)]! }
  },
  (_, draw) => ({ soakMore: draw() < 0.5 ? 0 : 1 + Math.floor(draw() * 4) }),
  (_, draw) => ({ weighEarly: draw() < 0.5 }),
  (_, draw) => ({ openLate: draw() < 0.5 }),
]

type Change = (list: readonly Wanted[], ground: Ground, draw: () => number) => readonly Wanted[] | undefined

export const anyOf = <T>(list: readonly T[], draw: () => number): T | undefined =>
  list[Math.floor(draw() * list.length)]
const at = (list: readonly unknown[], draw: () => number) => Math.floor(draw() * list.length)
const replaced = (list: readonly Wanted[], i: number, ...by: readonly Wanted[]) =>
  [...list.slice(0, i), ...by, ...list.slice(i + 1)]

export const CHANGES: Readonly<Record<string, Change>> = {
  /** One bucket becomes two. */
  split(list, ground, draw) {
    const i = at(list, draw), wanted = list[i]
    if (!wanted) return undefined
    const part = wanted.counts.map(n => Math.floor(draw() * (n + 1))), rest = wanted.counts.map((n, s) => n - part[s]!)
    if (!fitsBucket(ground.round, part) || !fitsBucket(ground.round, rest)) return undefined
    return replaced(list, i, { ...wanted, counts: part }, plainly(rest))
  },
  /** Two become one. */
  join(list, ground, draw) {
    const i = at(list, draw), j = at(list, draw), a = list[i], b = list[j]
    if (!a || !b || i === j) return undefined
    const counts = a.counts.map((n, s) => n + b.counts[s]!)
    return fitsBucket(ground.round, counts) ? replaced(list, i, { ...a, counts }).filter((_, k) => k !== j) : undefined
  },
  /** One mould goes into another bucket. */
  move(list, ground, draw) {
    const i = at(list, draw), j = at(list, draw), a = list[i], b = list[j]
    if (!a || !b || i === j) return undefined
    const shape = anyOf(a.counts.flatMap((n, s) => n > 0 ? [s] : []), draw)!
    const less = a.counts.map((n, s) => s === shape ? n - 1 : n), more = b.counts.map((n, s) => s === shape ? n + 1 : n)
    if (!fitsBucket(ground.round, more) || (sumOf(less) > 0 && !fitsBucket(ground.round, less))) return undefined
    const moved = replaced(replaced(list, i, { ...a, counts: less }), j, { ...b, counts: more })
    return moved.filter(w => sumOf(w.counts) > 0)
  },
  /** Two buckets change places. */
  swap(list, _, draw) {
    const i = at(list, draw), j = at(list, draw)
    if (i === j) return undefined
    return list.map((w, k) => k === i ? list[j]! : k === j ? list[i]! : w)
  },
  /** How one is fitted in. */
  genes(list, { round }, draw) {
    const i = at(list, draw), wanted = list[i]
    return wanted && replaced(list, i, { ...wanted, ...anyOf(GENES, draw)!(wanted, draw, round) })
  },
  /** How two neighbours are fitted in, all of it: what helps only together. */
  shake(list, { round }, draw) {
    const i = at(list, draw)
    const drawn = (wanted: Wanted) => GENES.reduce((w, gene) => ({ ...w, ...gene(w, draw, round) }), wanted)
    return list.map((w, k) => k < i || k > i + 1 ? w : drawn(w))
  },
  /** For as many as possible: one bucket more, one less, or another one instead. */
  exchange(list, ground, draw) {
    if (ground.round.goal !== 'most') return undefined
    const i = at([...list, 0], draw), most = 1 + Math.floor(draw() * ground.largest)
    const mix = fill(ground, ground.round.shapes.map(s => s.pieces), most, draw)
    if (!mix) return undefined
    const kind = Math.floor(draw() * 3)
    const next = kind === 0
      ? [...list.slice(0, i), plainly(mix), ...list.slice(i)]
      : kind === 1 ? list.filter((_, k) => k !== i) : list.map((w, k) => k === i ? { ...w, counts: mix } : w)
    return leftAfter(ground, next).every(n => n >= 0) ? next : undefined
  },
}
