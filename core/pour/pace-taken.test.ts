import { describe, expect, it } from 'vitest'
import { freezeRun } from '../plan/run'
import type { MouldFacts, Plan } from '../plan/types'
import { pouringTime, siftingTime } from '../plan/batches/pace'
import type { Stage } from '../plan/stages'
import type { PourEvent } from './events'
import { foldPour } from './fold'
import { paceTaken } from './pace-taken'

const tile: MouldFacts = {
  id: 'tile', name: 'Tile', material: 'silicone', volume: { value: 1e-3, low: 9.8e-4, high: 1.02e-3 },
  mouth: { shape: 'rectangular', width: 0.2, length: 0.2 }, wall: 0.008, section: 0.02, fragile: false,
}
const plan: Plan = {
  name: 'Tile', endUse: 'painted', fills: [{ mould: 'tile', count: 1 }], classId: 'plaster-of-paris', school: 'weighed',
  ratio: 0.7, scoop: { volume: 2.5e-4, filling: 'loose', perWater: 2 }, waterTemperature: 20, roomTemperature: 20,
  bucket: 'pail', losses: 0, soakMinutes: 1, stir: { tool: 'hand', minutes: 2 }, additions: [],
  known: { what: 'moulds', amount: 0 },
}
const world = { moulds: [tile], bucket: { id: 'pail', name: 'Pail', vessel: { bottom: 0.2, top: 0.25, height: 0.25 } } }
const runOf = (p: Plan) => {
  const made = freezeRun(p, world)
  if (!made.ok) throw new Error(made.problems.map(x => x.code).join())
  return made.run
}
let n = 0
const told = (stage: Stage, seconds: number, actor = 'ann'): PourEvent => ({
  id: `e${++n}`, pour: 'p', batch: 0, version: 3, happenedAt: 1.8e12 + seconds * 1000, recordedAt: 1.8e12, device: 'd',
  deviceSeq: n, actor, kind: 'stage', data: { stage },
} as PourEvent)

describe('what steps took', () => {
  const run = runOf(plan), [batch] = run.batches
  const sift = siftingTime(plan, batch!.mix.powder), pour = pouringTime(batch!.mix.slurry, 1)
  const events = (pourer = 'ann') => [
    told('sift', 0), told('soak', 2 * sift), told('stir', 2 * sift + 60), told('fill', 2 * sift + 180),
    told('clean-up', 2 * sift + 180 + pour / 2, pourer),
  ]
  it('is of who ended each, against what it is taken for', () => {
    const taken = paceTaken(run, foldPour(run, events('ben')))
    expect(taken.map(t => [t.step, t.who])).toEqual([['sift', 'ann'], ['stir', 'ann'], ['pour', 'ben']])
    expect(taken.map(t => Math.exp(t.took))).toEqual([2, 1, 0.5].map(x => expect.closeTo(x, 6)))
  })
  it('is nothing of what nobody told, of a forgotten press, of two who sift, and of days without a time', () => {
    expect(paceTaken(run, foldPour(run, [told('sift', 0), told('clean-up', 600)]))).toEqual([])
    const late = [told('sift', 0), told('soak', 9 * 3600)]
    expect(paceTaken(run, foldPour(run, late))).toEqual([])
    const two = runOf({ ...plan, hands: 2 })
    expect(paceTaken(two, foldPour(two, events())).map(t => t.step)).toEqual(['stir', 'pour'])
    expect(paceTaken({ ...run, daysOnly: true }, foldPour(run, events()))).toEqual([])
  })
})
