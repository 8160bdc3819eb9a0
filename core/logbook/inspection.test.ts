import { describe, expect, it } from 'vitest'
import { chance } from '~demo/random'
import { BUCKETS, makeIds, MOULDS, planOf, WISHES } from '~demo/saltmarsh'
import type { Happening, PourEvent } from '../pour/events'
import { CHECK_LISTS, expectedExpansion, judgeMeasure, shellList, weightFound } from './inspection'
import { castsOf, freezeRun, type FrozenRun } from '../plan/run'
import { foldPour } from '../pour/fold'

const ids = makeIds(chance(1))
const frozen = freezeRun({ ...planOf(ids, WISHES.lanterns), bag: undefined }, {
  moulds: [{ id: ids.moulds.lantern, ...MOULDS.lantern }],
  bucket: { id: ids.buckets.bowl, ...BUCKETS.bowl },
})
if (!frozen.ok) throw new Error('refused')
const { run } = frozen
let seq = 0
const event = (minutes: number, happening: Happening): PourEvent => ({
  ...happening,
  id: `e${++seq}`,
  pour: 'p',
  version: 1,
  batch: 0,
  happenedAt: 60_000 * minutes,
  recordedAt: 60_000 * minutes,
  device: 'd',
  deviceSeq: seq,
  actor: 'x',
})
const opened = [
  event(0, { kind: 'stage', data: { stage: 'sift' } }),
  event(10, { kind: 'stage', data: { stage: 'set' } }),
  event(120, { kind: 'opened', data: { cast: '1.1' } }),
]
const cast = (events: readonly PourEvent[], of: FrozenRun = run) => {
  const state = foldPour(of, [...opened, ...events])
  return { state, cast: state.casts[0]! }
}

describe('measures', () => {
  it('are held against the model and what plaster grows, with what a rule can tell', () => {
    const grown = expectedExpansion(run)
    // Gypsum cement: handbook expansions of some tenths of a per cent.
    expect(grown.value).toBeGreaterThan(0.001)
    expect(grown.value).toBeLessThan(0.006)
    expect(grown.low).toBeLessThan(grown.value)
    const of = (value: number) => judgeMeasure({ what: 'Across', value, nominal: 0.2 }, grown)!
    expect(of(0.2 * (1 + grown.value)).fits).toBe(true)
    expect(of(0.197)).toMatchObject({ fits: false, off: expect.closeTo(0.197 - (0.2 * (1 + grown.low) - 0.0005), 9) })
    expect(of(0.203).off).toBeGreaterThan(0)
    expect(judgeMeasure({ what: 'Base', value: 0.014, least: 0.015 }, grown)).toMatchObject({
      fits: false,
      off: expect.closeTo(-0.001, 9),
    })
    expect(judgeMeasure({ what: 'Base', value: 0.014 }, grown)).toBeUndefined()
  })

  it('of the same thing replace each other, faults are drawn anew, and both can be taken back', () => {
    const first = event(130, {
      kind: 'faults',
      data: { cast: '1.1', marks: [{ defect: 'void', severity: 2, x: 0.2, y: 0.3 }] },
    })
    const events = [
      first,
      event(131, { kind: 'measured', data: { cast: '1.1', what: 'Base', value: 0.014 } }),
      event(132, { kind: 'measured', data: { cast: '1.1', what: 'Base', value: 0.016 } }),
      event(133, { kind: 'faults', data: { cast: '1.1', marks: [] } }),
    ]
    expect(cast(events).cast).toMatchObject({ faults: [], measured: [{ what: 'Base', value: 0.016 }] })
    expect(cast([...events, event(134, { kind: 'undo', data: { event: events[3]!.id } })]).cast.faults).toHaveLength(1)
  })
})

describe('weight', () => {
  const { slurryDensity } = run.batches[0]!.mix, whole = castsOf(run)[0]!.mould.volume.value * slurryDensity
  it('of a whole piece is as expected; what is missing is a hollow of about that room', () => {
    const good = cast([event(125, { kind: 'cast-weighed', data: { cast: '1.1', mass: whole } })]),
      found = weightFound(run, good.state, good.cast)!
    expect(found.missing).toBeUndefined()
    expect(found.low).toBeLessThan(whole)
    expect(found.high).toBeGreaterThan(whole * 0.99)
    const light = cast([event(125, { kind: 'cast-weighed', data: { cast: '1.1', mass: 0.8 * whole } })]),
      hollow = weightFound(run, light.state, light.cast)!
    expect(hollow.missing!.share).toBeGreaterThan(0.15)
    expect(hollow.missing!.volume / (0.2 * castsOf(run)[0]!.mould.volume.value)).toBeCloseTo(1, 0)
    expect(weightFound(run, good.state, good.state.casts[1]!)).toBeUndefined()
  })
})

describe('check lists', () => {
  it('have a limit for every item; a shell brings its own from its plan', () => {
    for (const list of CHECK_LISTS) for (const item of list.items) expect(item.least ?? item.most).toBeGreaterThan(0)
    expect(shellList(run)).toBeUndefined()
    const shell = {
      ...run,
      plan: {
        ...run.plan,
        coats: {
          way: 'shell' as const,
          shares: [1, 1],
          areas: [{ name: 'Brow', width: 0.1, length: 0.1, thickness: [0.003, 0.007] }],
        },
      },
    }
    expect(shellList(shell)!.items).toEqual([{
      what: 'Brow',
      least: expect.closeTo(0.008, 9),
      most: expect.closeTo(0.012, 9),
    }])
  })
})
