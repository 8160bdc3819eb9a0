import { describe, expect, it } from 'vitest'
import { freezeRun } from '../plan/run'
import type { MouldFacts, Plan } from '../plan/types'
import { foldPour } from '../pour/fold'
import { EVENT_VERSION, type Happening, type PourEvent } from '../pour/events'
import { outcomeOf } from './outcome'
import { bowlOfPour } from './past-pour'
import { follow } from './script'
import { drawTruth } from './truth'

const lantern: MouldFacts = {
  id: 'lantern', name: 'Lantern base', material: 'silicone', volume: { value: 412e-6, low: 400e-6, high: 424e-6 },
  mouth: { shape: 'round', width: 0.09, length: 0.09 }, wall: 0.008, section: 0.03, fragile: false,
}
const PLAN: Plan = {
  name: 'Lanterns', endUse: 'painted', fills: [{ mould: 'lantern', count: 2 }], classId: 'plaster-of-paris', school: 'weighed',
  ratio: 0.7, scoop: { volume: 2.5e-4, filling: 'loose', perWater: 2 }, waterTemperature: 18, roomTemperature: 20, bucket: 'pail',
  losses: 0.06, soakMinutes: 2, stir: { tool: 'hand', minutes: 2 }, additions: [], known: { what: 'moulds', amount: 0 },
}
const bucket = { id: 'pail', name: 'Pail', vessel: { bottom: 0.2, top: 0.24, height: 0.22 } }
function frozen(change: Partial<Plan> = {}) {
  const result = freezeRun({ ...PLAN, ...change }, { moulds: [lantern], bucket })
  if (!result.ok) throw new Error('The plan cannot be poured.')
  return result.run
}
let told = 0
const event = (happening: Happening): PourEvent => ({
  ...happening, id: `e${++told}`, pour: 'p', batch: 0, version: EVENT_VERSION, happenedAt: told * 1000, recordedAt: told * 1000,
  device: 'd', deviceSeq: told, actor: 'a',
} as PourEvent)

describe('a pour of the logbook, once more', () => {
  const run = frozen(), planned = bowlOfPour(run, foldPour(run, []))!
  it('has the powder, bucket, moulds and warmth of the plan, and an expert makes good pieces of it', () => {
    expect(planned.setup).toMatchObject({ powder: 'plaster-of-paris', room: 20, vessel: { width: 0.24 } })
    expect(planned.setup.moulds).toMatchObject([{ id: 'lantern', count: 2, volume: 412e-6 }])
    const good = [1, 2, 3, 4, 5].filter(s => outcomeOf(follow(planned.setup, s, planned.expert)).verdict === 'good')
    expect(good.length).toBeGreaterThanOrEqual(4)
  })

  it('goes by what was really weighed, and its bag by what the marks told of it', () => {
    const state = foldPour(run, [
      event({ kind: 'weighed', data: { what: 'water', mass: 0.5, how: 'scale' } }),
      event({ kind: 'weighed', data: { what: 'powder', mass: 0.8, how: 'scale' } }),
      event({ kind: 'stage', data: { stage: 'sift' } }),
      event({ kind: 'foreseen', data: { open: {}, taught: { mean: Math.log(1.6), sd: 0.1 } } }),
    ])
    const { setup } = bowlOfPour(run, state)!
    expect(setup.plan).toMatchObject({ powder: 0.8, ratio: 0.625 })
    const rates = Array.from({ length: 40 }, (_, s) => drawTruth(setup, s).scatter.rate).sort((a, b) => a - b)
    expect(rates[20]! / 1.6).toBeGreaterThan(0.95)
    expect(rates[20]! / 1.6).toBeLessThan(1.05)
  })

  it('is none where only its day is known', () => {
    expect(bowlOfPour({ ...run, daysOnly: true }, foldPour(run, []))).toBeUndefined()
  })
})
