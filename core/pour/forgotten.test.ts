import { describe, expect, it } from 'vitest'
import { chance } from '~demo/random'
import { BUCKETS, makeIds, MOULDS, planOf, WISHES } from '~demo/saltmarsh'
import { freezeRun } from '../plan/run'
import type { PourEvent } from './events'
import { foldPour } from './fold'
import { isForgotten, pouredAsPlanned } from './forgotten'
import { summarisePour } from './projection'

const ids = makeIds(chance(1)), T0 = 1_800_000_000_000, DAY = 86_400_000
const frozen = freezeRun({ ...planOf(ids, WISHES.lanterns), bag: undefined }, {
  moulds: [{ id: ids.moulds.lantern, ...MOULDS.lantern }],
  bucket: { id: ids.buckets.bowl, ...BUCKETS.bowl },
})
if (!frozen.ok) throw new Error('refused')
const { run } = frozen
let made = 0
const stage = (at: number, name: string, batch = 0, from = 'ready') => ({
  kind: 'stage', data: { stage: name, from }, id: `e${++made}`, pour: 'p', batch, version: 2,
  happenedAt: at, recordedAt: at, device: 'd', deviceSeq: made, actor: 'x',
}) as PourEvent
const state = (...events: PourEvent[]) => foldPour(run, events)
const summary = (...events: PourEvent[]) => summarisePour(run, state(...events))
const readied = stage(T0, 'ready', 0, 'unbegun'), sifted = stage(T0 + 60_000, 'sift')

describe('a forgotten pour', () => {
  it('is one at the bench of which nothing was told for a day', () => {
    expect(isForgotten(summary(readied, sifted), T0 + DAY)).toBe(false)
    expect(isForgotten(summary(readied, sifted), T0 + DAY + 61_000)).toBe(true)
    // On the shelf it is the casts that wait.
    const set = stage(T0 + 900_000, 'set', run.batches.length - 1, 'clean-up')
    expect(isForgotten(summary(readied, sifted, set), T0 + 9 * DAY)).toBe(false)
  })

  it('is closed as poured by its plan: all casts set from when they would have been filled', () => {
    const known = state(readied, sifted), told = pouredAsPlanned(run, known, T0 + 3 * DAY)
    expect(told.batch).toBe(run.batches.length - 1)
    expect(told.at).toBeGreaterThan(T0 + 60_000)
    expect(told.at).toBeLessThan(T0 + 3_600_000)
    const closed = state(readied, sifted, stage(told.at, told.stage, told.batch, told.from))
    expect(closed.status).toBe('setting')
    expect(closed.casts.every(c => c.status === 'setting' && c.filledAt! <= told.at)).toBe(true)
    // What was told stays as it was told.
    expect(closed.batches[0]!.wetAt).toBe(T0 + 60_000)
    // Not before the last word, and not in the future.
    expect(pouredAsPlanned(run, known, T0 + 61_000).at).toBe(T0 + 61_000)
    const late = state(readied, sifted, stage(T0 + 7_200_000, 'stir', 0, 'soak'))
    expect(pouredAsPlanned(run, late, T0 + DAY).at).toBeGreaterThanOrEqual(T0 + 7_200_000)
  })
})
