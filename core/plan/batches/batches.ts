import type { Batch } from '../types'

/**
 * Splits casts, in the order they will be filled, into the fewest batches that the bucket and the pouring window allow,
 * as even as possible.
 * Whole moulds only; order is kept so that like moulds stay together.
 * @param volumes slurry each cast takes, m3, each at most `capacity`.
 * @param capacity most one batch may hold, m3.
 * @param timeFits whether one person can sift, stir and pour this volume into this many moulds in time.
 * @param least so many batches even where fewer would do.
 * @returns sizes of the batches; `tooSlow` when even single casts do not fit the window (they are then batched by
 *   volume alone).
 */
export function splitIntoBatches(
  volumes: readonly number[],
  capacity: number,
  timeFits: (volume: number, count: number) => boolean,
  least = 1,
): { readonly groups: readonly number[], readonly tooSlow: boolean } {
  const tooSlow = volumes.some(v => !timeFits(v, 1))
  const fits = (volume: number, count: number) =>
    volume <= capacity * (1 + 1e-12) && (tooSlow || timeFits(volume, count))
  const fewest = Math.max(greedy(volumes, Infinity, fits).length, Math.min(least, volumes.length))
  // Even out: the smallest common ceiling that still needs no more batches.
  let low = Math.max(...volumes), high = volumes.reduce((a, b) => a + b, 0)
  let best = greedy(volumes, high, fits)
  for (let i = 0; i < 40 && high - low > 1e-9 * high; i++) {
    const ceiling = (low + high) / 2
    const groups = greedy(volumes, ceiling, fits)
    if (groups.length <= fewest) {
      best = groups
      high = ceiling
    }
    else low = ceiling
  }
  return { groups: best, tooSlow }
}

function greedy(
  volumes: readonly number[],
  ceiling: number,
  fits: (volume: number, count: number) => boolean,
): number[] {
  const groups: number[] = []
  let volume = 0, count = 0
  for (const v of volumes) {
    if (count > 0 && (volume + v > ceiling * (1 + 1e-12) || !fits(volume + v, count + 1))) {
      groups.push(count)
      volume = 0
      count = 0
    }
    volume += v
    count++
  }
  if (count > 0) groups.push(count)
  return groups
}

/** Batches that are alike, as one with their numbers from 1; coats stand each for itself. */
export function alikeBatches(
  batches: readonly Batch[],
): readonly { readonly batch: Batch, readonly numbers: readonly number[] }[] {
  const groups: { batch: Batch, numbers: number[] }[] = [],
    fills = (b: Batch) => b.fills.map(f => `${f.copies} ${f.mould.id}`).join()
  batches.forEach((batch, i) => {
    const same = batch.coat
      ? undefined
      : groups.find(g => Math.abs(g.batch.mix.powder / batch.mix.powder - 1) < 1e-6 && fills(g.batch) === fills(batch))
    if (same) same.numbers.push(i + 1)
    else groups.push({ batch, numbers: [i + 1] })
  })
  return groups
}
