import { describe, expect, it } from 'vitest'
import { METRIC } from '~core/units/units'
import { freezeRun } from '~core/plan/run'
import type { Happening, PourEvent } from '~core/pour/events'
import { chance } from '~demo/random'
import { BUCKETS, makeIds, MOULDS, planOf, WISHES } from '~demo/saltmarsh'
import type { PourAnswer } from '~contract/pour'
import { compared, comparison, lanes } from './compare'

const ids = makeIds(chance(1)), plan = { ...planOf(ids, WISHES.lanterns), bag: undefined }
const frozen = freezeRun(plan, {
  moulds: [{ id: ids.moulds.lantern, ...MOULDS.lantern }],
  bucket: { id: ids.buckets.bowl, ...BUCKETS.bowl },
})
if (!frozen.ok) throw new Error('refused')
const pour = (id: string, water: number, soak: number): PourAnswer => {
  let seq = 0
  const event = (at: number, happening: Happening): PourEvent => ({
    ...happening,
    id: `${id}${seq}`,
    pour: id,
    version: 1,
    batch: 0,
    happenedAt: 1000 * at,
    recordedAt: 1000 * at,
    device: 'd',
    deviceSeq: seq++,
    actor: 'x',
  })
  return {
    id,
    run: frozen.run,
    startedBy: 'x',
    seq: 9,
    events: [
      event(0, { kind: 'weighed', data: { what: 'water', mass: water, how: 'scale' } }),
      event(1, { kind: 'weighed', data: { what: 'powder', mass: 1, how: 'scale' } }),
      event(10, { kind: 'stage', data: { stage: 'sift' } }),
      event(100, { kind: 'stage', data: { stage: 'soak' } }),
      event(100 + soak, { kind: 'stage', data: { stage: 'stir' } }),
      event(300 + soak, { kind: 'stage', data: { stage: 'fill' } }),
    ],
  }
}
const all = compared([pour('a', 0.45, 60), pour('b', 0.5, 120)])
const row = (word: string, block: number) => comparison(all, METRIC)[block]!.rows.find(r => r.word === word)!

it('of a pour of the past what nobody knows is left open, and its lane is empty', () => {
  const past = compared([pour('a', 0.45, 60), { ...pour('b', 0.5, 120), run: { ...frozen.run, daysOnly: true } }]),
    [planned, happened] = comparison(past, METRIC)
  expect(planned!.rows.filter(r => r.cells[1] !== '—').map(r => r.word)).toEqual(['powder', 'moulds'])
  expect(happened!.rows.find(r => r.word === 'soaked for')!.cells).toEqual(['1 min', '—'])
  expect(lanes(past, 1000, 40).lanes.map(l => l.marks.length > 0)).toEqual([true, false])
})

describe('pours side by side', () => {
  it('are told apart by letters, and by what differs between them', () => {
    expect(all.map(c => c.letter)).toEqual(['A', 'B'])
    expect(row('water per 100 powder', 1)).toEqual({ word: 'water per 100 powder', cells: ['45', '50'], differs: true })
    expect(row('soaked for', 1).cells).toEqual(['1 min', '2 min'])
    expect(row('soak', 0).differs).toBe(false)
    expect(row('good', 2)).toEqual({ word: 'good', cells: ['—', '—'], differs: false })
  })

  it('lie on one scale of time: what came later lies further right, in every lane', () => {
    const { lanes: [a, b], ticks } = lanes(all, 1000, 40)
    const at = (lane: typeof a, id: string) => lane!.marks.find(m => m.id === id)!
    expect(at(a, 'soak').at!).toBeLessThan(at(b, 'soak').at!)
    expect(at(a, 'sift').at).toBe(at(b, 'sift').at)
    expect(at(a, 'open').at).toBeUndefined()
    expect(a!.marks.every(m => m.from <= m.to && m.to <= 1000.001)).toBe(true)
    const words = lanes(all, 1000, 40).heads
    expect(words.every((w, i) => i === 0 || w.x - words[i - 1]!.x > 3.5 * (w.word.length + words[i - 1]!.word.length)))
      .toBe(true)
    expect(ticks.map(t => t.x)).toEqual([...ticks.map(t => t.x)].sort((x, y) => x - y))
  })
})
