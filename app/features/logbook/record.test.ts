import { describe, expect, it } from 'vitest'
import type { Happening, PourEvent } from '~core/pour/events'
import { freezeRun } from '~core/plan/run'
import { foldPour } from '~core/pour/fold'
import { summarisePour } from '~core/pour/projection'
import { METRIC, US_CUSTOMARY } from '~core/units/units'
import { chance } from '~demo/random'
import { BUCKETS, makeIds, MOULDS, planOf, WISHES } from '~demo/saltmarsh'
import { nextMoment } from '../today/next'
import { entriesOf, entryWords } from './record'

const ids = makeIds(chance(4))
const frozen = freezeRun({ ...planOf(ids, WISHES.lanterns), bag: undefined }, {
  moulds: [{ ...MOULDS.lantern, id: ids.moulds.lantern }],
  bucket: { ...BUCKETS.bowl, id: ids.buckets.bowl },
})
if (!frozen.ok) throw new Error('the plan is refused')
const { run } = frozen
const T0 = 1_800_000_000_000
const event = (happening: Happening, at = 0, late = 0, batch: number | undefined = 0): PourEvent => ({
  ...happening,
  id: `e${at}${happening.kind}`,
  pour: 'p',
  batch,
  version: 1,
  happenedAt: T0 + at * 1000,
  recordedAt: T0 + (at + late) * 1000,
  device: 'd',
  deviceSeq: at,
  actor: 'a',
})

describe('entries in words', () => {
  it.each<[Happening, string]>([
    [{ kind: 'stage', data: { stage: 'sift' } }, 'Bucket 1: Powder met water'],
    [{ kind: 'weighed', data: { what: 'water', mass: 0.71, how: 'scale' } }, 'Bucket 1: 710 g of water'],
    [{ kind: 'mark', data: { sign: 'gloss-gone' } }, 'Bucket 1: Gloss gone'],
    [{ kind: 'filled', data: { cast: '2.1' } }, 'Lantern base 4 filled'],
    [{ kind: 'leftover', data: { where: 'bin' } }, 'Bucket 1: Leftover: set and binned'],
    [{ kind: 'note', data: { text: 'Rain' } }, '“Rain”'],
    [{ kind: 'opened', data: { cast: '1.2' } }, 'Lantern base 2 opened'],
    [
      { kind: 'judged', data: { cast: '1.1', verdict: 'second', defects: ['void', 'flash'], note: 'tip' } },
      'Lantern base 1: second, trapped air, flash or leak. “tip”',
    ],
    [{ kind: 'finished', data: { cast: '1.1' } }, 'Lantern base 1 finished'],
    [{ kind: 'abandoned', data: { reason: 'too stiff' } }, 'Given up: too stiff'],
    [{ kind: 'undo', data: { event: 'x' } }, 'An entry was taken back'],
  ])('%j', (happening, words) => {
    expect(entryWords(event(happening), run, METRIC)).toBe(words)
  })

  it('speaks the units of the workshop', () => {
    expect(
      entryWords(event({ kind: 'weighed', data: { what: 'powder', mass: 1.578, how: 'scale' } }), run, US_CUSTOMARY),
    ).toBe('Bucket 1: 3 lb 7.7 oz of powder')
  })

  it('stand in the order of happening, late ones and those taken back marked', () => {
    const soak = event({ kind: 'stage', data: { stage: 'soak' } }, 300),
      mark = event({ kind: 'mark', data: { sign: 'islands' } }, 200, 120)
    const entries = entriesOf([soak, mark, event({ kind: 'undo', data: { event: soak.id } }, 400)], run, METRIC)
    expect(entries.map(e => [e.event.kind, e.takenBack, e.late])).toEqual([['mark', false, true], [
      'stage',
      true,
      false,
    ], ['undo', false, false]])
  })
})

describe('the next moment on Today', () => {
  const summary = summarisePour(run, foldPour(run, [event({ kind: 'stage', data: { stage: 'sift' } })]))

  it('is the first that has not come, to the second while it is near', () => {
    expect(nextMoment(summary, T0 + 20_000)).toEqual({
      id: 'sift',
      in: expect.stringMatching(/^1 min \d+ s$/) as string,
      words: 'until all powder is in',
    })
    expect(nextMoment(summary, T0 + 30 * 60_000)!.words).toBe('until it is warmest')
    expect(nextMoment(summary, T0 + 3 * 86_400_000)).toBeUndefined()
  })

  it('is nothing before powder meets water', () => {
    expect(nextMoment(summarisePour(run, foldPour(run, [])), T0)).toBeUndefined()
  })
})
