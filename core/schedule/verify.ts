import type { Mixing, Round, Task, Timetable } from './round'

/**
 * Whether a timetable can be worked as it stands. Shares nothing with what makes timetables but their shape, so that
 * one cannot hide the other's mistake. Slow and plain on purpose.
 */

/** What a timetable breaks. */
export type Breach
  = 'hours' | 'hands' | 'length' | 'order' | 'soak' | 'pour-by' | 'finish-by' | 'bucket' | 'bucket-volume' | 'table'
    | 'mould' | 'set' | 'shelf' | 'powder' | 'clean-within' | 'dirty' | 'count' | 'task-missing'

/** @returns every kind of breach once; none for a timetable that can be worked */
export function findBreaches(round: Round, { mixings, tasks, opened, end }: Timetable): readonly Breach[] {
  const found = new Set<Breach>()
  checkHands(round, tasks, found)
  for (const [mix, mixing] of mixings.entries()) checkMixing(round, mixing, tasks.filter(t => t.mix === mix), found)
  checkBuckets(round, mixings, found)
  checkMoulds(round, mixings, tasks, found)
  checkSums(round, mixings, found)
  const opens = tasks.filter(t => t.kind === 'open')
  if (round.shapes.some((_, s) => opens.filter(t => t.shape === s).length !== opened[s])) found.add('count')
  if (Math.max(0, ...opens.map(t => t.to)) !== end) found.add('count')
  return [...found]
}

function checkHands({ persons }: Round, tasks: readonly Task[], found: Set<Breach>): void {
  for (const [p, shifts] of persons.entries()) {
    const own = tasks.filter(t => t.person === p && t.to > t.from).sort((a, b) => a.from - b.from)
    for (const [i, t] of own.entries()) {
      if (!shifts.some(([from, to]) => t.from >= from && t.to <= to)) found.add('hours')
      if (own[i + 1] && own[i + 1]!.from < t.to) found.add('hands')
    }
  }
  if (tasks.some(t => !persons[t.person])) found.add('hands')
}

function checkMixing(round: Round, m: Mixing, tasks: readonly Task[], found: Set<Breach>): void {
  const times = round.mixing(m.counts), of = (kind: Task['kind']) => tasks.find(t => t.kind === kind)
  const weigh = of('weigh'), sift = of('sift'), fill = of('fill'), clean = of('clean')
  if (!sift || !fill || !clean || (times.weigh > 0 && !weigh)) return void found.add('task-missing')
  const fills = m.counts.reduce((n, c, s) => n + c * round.shapes[s]!.fill, 0)
  const backs = m.counts.reduce((n, c, s) => n + c * (round.shapes[s]!.finish ?? 0), 0)
  const lengths = [
    weigh && weigh.to - weigh.from !== times.weigh, sift.to - sift.from !== times.sift,
    fill.to - fill.from !== times.stir + fills + backs, clean.to - clean.from !== times.clean,
  ]
  if (lengths.some(Boolean)) found.add('length')
  const told = [m.wet, m.stir, m.filled, m.cleaned]
  if (told.join() !== [sift.from, fill.from, fill.to - backs, clean.to].join()) found.add('order')
  if ((weigh && weigh.to > sift.from) || clean.from < fill.to) found.add('order')
  const soak = fill.from - sift.to
  if (soak < times.soak || soak > times.soakMax) found.add('soak')
  if (m.filled - m.wet > times.pourBy) found.add('pour-by')
  if (fill.to - m.wet > (times.finishBy ?? Infinity)) found.add('finish-by')
  if (clean.from - m.filled > (times.cleanWithin ?? Infinity)) found.add('clean-within')
  if (clean.to > round.horizon) found.add('dirty')
  const volume = m.counts.reduce((n, c, s) => n + c * round.shapes[s]!.volume, 0)
  if (volume > round.bucketVolume + 1e-6) found.add('bucket-volume')
  checkFills(round, m, times.stir, found)
}

/** Moulds are filled one after the other in the order of the shapes, and set from what the round says. */
function checkFills(round: Round, m: Mixing, stir: number, found: Set<Breach>): void {
  let at = m.stir + stir
  const inOrder = m.counts.flatMap((n, s) => Array.from({ length: n }, () => s))
  if (inOrder.join() !== m.moulds.map(f => f.shape).join()) found.add('count')
  for (const f of m.moulds) {
    const { fill, set } = round.shapes[f.shape]!, to = at + fill
    if (f.from !== at || f.to !== to) found.add('length')
    const from = round.setFrom === 'own' ? to : round.setFrom === 'batch' ? m.filled : m.wet
    if (f.set < from + set) found.add('set')
    at = to
  }
}

/** How much is in use at the worst minute. */
function mostAtOnce(spans: readonly { readonly from: number, readonly to: number, readonly of: number }[]): number {
  return Math.max(0, ...spans.map(({ from }) =>
    spans.reduce((n, s) => n + (s.from <= from && from < s.to ? s.of : 0), 0)))
}

function checkBuckets(round: Round, mixings: readonly Mixing[], found: Set<Breach>): void {
  const inUse = mixings.map(m => ({ from: m.wet, to: m.cleaned, of: 1, bucket: m.bucket }))
  for (let b = 0; b < round.buckets; b++) if (mostAtOnce(inUse.filter(u => u.bucket === b)) > 1) found.add('bucket')
  if (inUse.some(u => u.bucket < 0 || u.bucket >= round.buckets)) found.add('bucket')
  const atTable = mixings.map(m => ({ from: m.moulds[0]?.from ?? m.stir, to: m.filled, of: 1 }))
  if (mostAtOnce(atTable) > round.tables) found.add('table')
}

function checkMoulds(round: Round, mixings: readonly Mixing[], tasks: readonly Task[], found: Set<Breach>): void {
  const uses = mixings.flatMap((m, mix) => m.moulds.map((f) => {
    const open = tasks.find(t => t.kind === 'open' && t.mix === mix && t.shape === f.shape && t.copy === f.copy)
    if (open && (open.from < f.set || open.to - open.from !== round.shapes[f.shape]!.open)) found.add('set')
    if (open?.to !== f.opened) found.add('count')
    const needed = round.setFrom === 'batch' ? m.moulds[0]!.from : f.from
    return { ...f, needed, until: open?.to ?? Infinity }
  }))
  for (const [s, shape] of round.shapes.entries()) {
    for (let c = 0; c < shape.copies; c++) {
      const own = uses.filter(u => u.shape === s && u.copy === c).map(u => ({ from: u.needed, to: u.until, of: 1 }))
      if (mostAtOnce(own) > 1) found.add('mould')
    }
    if (uses.some(u => u.shape === s && (u.copy < 0 || u.copy >= shape.copies))) found.add('mould')
  }
  const onShelf = uses.map(u => ({ from: u.from, to: u.until, of: round.shapes[u.shape]!.shelf }))
  if (mostAtOnce(onShelf) > (round.shelf ?? Infinity) + 1e-6) found.add('shelf')
}

function checkSums({ shapes, powder }: Round, mixings: readonly Mixing[], found: Set<Breach>): void {
  const made = shapes.map((_, s) => mixings.reduce((n, m) => n + (m.counts[s] ?? 0), 0))
  if (made.some((n, s) => n > shapes[s]!.pieces)) found.add('count')
  const dust = made.reduce((n, c, s) => n + c * (shapes[s]!.powder ?? 0), 0)
  if (dust > (powder ?? Infinity) + 1e-6) found.add('powder')
}
