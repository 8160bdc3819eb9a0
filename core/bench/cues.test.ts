import { describe, expect, it } from 'vitest'
import { freezeRun } from '../plan/run'
import { foldPour } from '../pour/fold'
import type { PourEvent } from '../pour/events'
import { chance } from '../../demo/random'
import { BUCKETS, makeIds, MOULDS, planOf, WISHES } from '../../demo/saltmarsh'
import { cuesOf, fallenDue, pouringEnds, withLead } from './cues'
import { cueWords } from './cue-words'

const ids = makeIds(chance(3))
const plan = { ...planOf(ids, WISHES.lanterns), fills: [{ mould: ids.moulds.lantern, count: 2 }] }
const frozen = freezeRun(plan, {
  moulds: [{ ...MOULDS.lantern, id: ids.moulds.lantern }],
  bucket: { ...BUCKETS.pail, id: ids.buckets.pail },
})
if (!frozen.ok) throw new Error('the plan is refused')
const { run } = frozen
const T0 = 1_800_000_000_000
const stages = (...list: [number, string][]) =>
  foldPour(
    run,
    list.map((
      [at, stage],
      i,
    ) => ({
      id: `${i}`,
      pour: 'p',
      kind: 'stage',
      data: { stage },
      batch: 0,
      version: 1,
      happenedAt: T0 + at * 1000,
      recordedAt: 0,
      device: 'd',
      deviceSeq: i,
      actor: 'a',
    } as PourEvent)),
  )

describe('cues', () => {
  it('there are none before powder meets water', () => {
    expect(cuesOf(run, stages([0, 'ready'], [60, 'weigh']))).toEqual([])
  })

  it('come in the order of time and leave out what is done', () => {
    const cues = cuesOf(run, stages([0, 'sift'], [90, 'soak']))
    expect(cues.map(c => c.id)).not.toContain('0-sift')
    expect(cues.map(c => c.at)).toEqual(cues.map(c => c.at).sort((a, b) => a - b))
    expect(cues.find(c => c.id === '0-hurry')!.at).toBeCloseTo(T0 + (pouringEnds(run, 0) - 60) * 1000, 3)
    expect(cuesOf(run, stages([0, 'sift'], [500, 'clean-up'])).map(c => c.id)).toEqual([
      '0-back',
      '0-tap',
      '0-set',
      '0-warm',
      '0-open',
    ])
  })

  it('after a gap only the last one is said, and never one twice', () => {
    const cues = cuesOf(run, stages([0, 'sift']))
    expect(fallenDue(cues, T0, T0 + 86_400_000).map(c => c.id)).toEqual(['0-open'])
    // A thick cast may be warmest after it can be opened: then that is what is said.
    const [warm, open] = ['warm' as const, 'open' as const].map(k => cues.find(c => c.kind === k)!),
      thick = [open!, { ...warm!, at: open!.at + 60_000 }]
    expect(fallenDue(thick, T0, T0 + 86_400_000)).toEqual([open])
    expect(fallenDue(thick, open!.at, T0 + 86_400_000)).toEqual([thick[1]])
    expect(fallenDue(cues, cues[0]!.at, cues[0]!.at + 1)).toEqual([])
    expect(fallenDue(cues, cues[0]!.at - 1, cues[0]!.at)).toEqual([cues[0]])
    const together = cues.slice(0, 2).map(c => ({ ...c, at: T0 }))
    expect(fallenDue(together, T0 - 250, T0)).toEqual(together)
  })

  it('can be told early, and then say so; a warning that is ahead already stays', () => {
    const cues = cuesOf(run, stages([0, 'sift'])), early = withLead(cues, 10)
    for (const [i, c] of cues.entries()) expect(early[i]!.at).toBe(c.id === '0-hurry' ? c.at : c.at - 10_000)
    expect(cueWords(early.find(c => c.id === '0-fill')!)).toBe('In 10 seconds: it should all be poured.')
    const soak = { id: '0-soak', kind: 'soak', batch: 0, at: 0, named: 'batch' } as const
    expect(cueWords(soak)).toBe('Bucket 1. Soaked. Start stirring.')
    expect(cueWords(withLead([soak], 5)[0]!)).toBe('In 5 seconds: Bucket 1, soaked. Start stirring.')
    expect(withLead(cues, 0)).toBe(cues)
  })
})
