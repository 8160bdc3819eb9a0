import { describe, expect, it } from 'vitest'
import { comingMoments } from './coming'
import { bagCode, castCode, castLabels, fieldBagLabels, planCode, readCode } from './labels'
import { chance } from '~demo/random'
import { BAGS, makeIds, MOULDS, planOf, WISHES } from '~demo/saltmarsh'
import { METRIC } from '../units/units'
import { freezeRun } from '../plan/run'
import type { CastSummary, PourSummary } from '../pour/projection'

const HOUR = 3_600_000, NOW = 1_800_000_000_000, POUR = '7f3c9a21-0000-4000-8000-000000000000'
const cast = (id: string, change: Partial<CastSummary> = {}): CastSummary => ({
  id,
  label: `Tile ${id.split('.')[1]}`,
  mould: 'Tile',
  mouldId: 't',
  material: 'silicone',
  status: 'setting',
  powder: 'Casting plaster',
  ratio: 0.67,
  endUse: 'painted',
  readyWord: 'dry enough to paint',
  filledAt: NOW - HOUR,
  openFrom: NOW + HOUR,
  openTo: NOW + 2 * HOUR,
  defects: [],
  note: '',
  ...change,
})
const row = (c: CastSummary) => ({ pour: POUR, pourName: 'Tiles', cast: c })
const drying = (id: string, days: number, weighed = 0) =>
  cast(id, {
    status: 'judged',
    verdict: 'good',
    openedAt: NOW - HOUR,
    readyFrom: NOW,
    readyTo: NOW + days * 24 * HOUR,
    drying: { standing: { place: 'rack', air: { celsius: 20, humidity: 0.5 } }, since: NOW, weighed },
  })

describe('codes of labels', () => {
  it('are short, and read back as typed or scanned', () => {
    expect(castCode(POUR, '1.12')).toBe('7F3C9A21-1.12')
    expect(readCode(' 7f3c9a21-1.12 ')).toEqual({ what: 'cast', pour: '7f3c9a21', cast: '1.12' })
    expect(readCode(bagCode(POUR))).toEqual({ what: 'bag', id: '7f3c9a21' })
    expect(readCode(planCode(POUR))).toEqual({ what: 'plan', id: '7f3c9a21' })
    for (const none of ['', '7f3c9a2-1.1', '7f3c9a21', 'b-7f3c', '7f3c9a21-1.1\' or 1=1'])
      expect(readCode(none)).toBeUndefined()
  })

  it('a label says what comes next: opening, then drying, then what became of it; nothing is printed for what is not poured', () => {
    const labelled = cast('1.1'), labels = castLabels(POUR, { name: 'Tiles' } as unknown as PourSummary, [
      cast('1.1'),
      drying('1.2', 3),
      cast('1.3', { status: 'finished', verdict: 'good', openedAt: NOW, finishedAt: NOW }),
      cast('1.4', { status: 'waiting', filledAt: undefined }),
    ], () => 'a day', id => id === labelled.mouldId ? MOULDS.heel : undefined)
    expect(labels.map(l => l.picture)).toEqual([MOULDS.heel, MOULDS.heel, MOULDS.heel])
    expect(labels.map(l => l.lines.at(-1))).toEqual(['Open by a day', 'By a day dry enough to paint', 'Good'])
    expect(labels[0]!.lines).toContain('Casting plaster at 67')
  })

  it('of a print it says where, when, what made it and which way it pointed', () => {
    const impression = { place: 'Towpath', on: '2026-08-02', believed: 'a boot', faced: 'north-east' }
    const [label] = castLabels(POUR, { name: 'Heel' } as unknown as PourSummary, [cast('1.1')], () => 'a day', () =>
      ({ ...MOULDS.heel, impression }))
    expect(label!.lines.slice(-2)).toEqual(['Towpath, 2026-08-02', 'Made by a boot, pointing north-east'])
  })
})

describe('labels of field bags', () => {
  it('say what is in the bag, how much water it wants and what to do, without a screen', () => {
    const ids = makeIds(chance(1)),
      plan = planOf(ids, WISHES.towpath),
      frozen = freezeRun(plan, {
        moulds: [{ id: ids.moulds.heel, ...MOULDS.heel }],
        bag: { id: ids.bags.field, ...BAGS.field },
      })
    if (!frozen.ok) throw new Error('refused')
    const labels = fieldBagLabels(POUR, frozen.run, METRIC), { mix } = frozen.run.batches[0]!
    expect(labels).toHaveLength(frozen.run.batches.length)
    expect(labels[0]!.title.replace(/[^\d·]/g, '')).toBe(
      `${Math.round(mix.powder * 1000)}·${Math.round(mix.waterVolume * 1e6 / 5) * 5}`,
    )
    expect(labels[0]!.lines[2]).toMatch(/^Knead \d+ min.*, pour by \d+ min/)
    expect(labels[0]!.code).toBe('P-7F3C9A21')
  })

  it('tell everything that was weighed: what is in the bag, what goes into the water, and the parts of a mixed powder', () => {
    const ids = makeIds(chance(1)), additions = [{ id: 'salt', share: 0.01 }, { id: 'silica-flour', share: 0.2 }] as const
    const lines = (change: object) => {
      const plan = { ...planOf(ids, WISHES.towpath), bag: undefined, ...change }
      const frozen = freezeRun(plan, { moulds: [{ id: ids.moulds.heel, ...MOULDS.heel }] })
      if (!frozen.ok) throw new Error(frozen.problems.map(p => p.code).join())
      return { lines: fieldBagLabels(POUR, frozen.run, METRIC)[0]!.lines, mix: frozen.run.batches[0]!.mix }
    }
    const added = lines({ additions }), grams = (kg: number) => `${Math.round(kg * 1000)} g`
    const mass = (id: string) => added.mix.additions.find(a => a.id === id)!.mass
    expect(added.lines).toContain(`In it: ${grams(mass('silica-flour'))} silica flour`)
    expect(added.lines.join('; ')).toMatch(/Into the water: [\d.]+ g table salt/)
    const mixed = lines({ classId: 'investment-plaster', ratio: 0.35 })
    expect(mixed.lines.find(l => l.startsWith('In it'))).toMatch(/plaster, .* silica flour$/)
  })
})

describe('moments to come', () => {
  it('casts that want the same are one entry; one that was weighed has its own; far-off hopes and damp pieces have none', () => {
    const coming = comingMoments([
      row(cast('1.1')),
      row(cast('1.2')),
      row(drying('1.3', 3)),
      row(drying('1.4', 3.2)),
      row(drying('1.5', 2, 1)),
      row(drying('1.6', 90, 1)),
      row(cast('1.7', { status: 'judged', openedAt: NOW })),
      row(cast('1.8', { status: 'finished' })),
    ], NOW)
    expect(coming.map(c => c.title)).toEqual([
      'Open: 2 × Tile',
      'Tile 5: dry enough to paint',
      '2 × Tile: dry enough to paint',
    ])
    expect([coming[0]!.from, coming[0]!.to]).toEqual([NOW + HOUR, NOW + 2 * HOUR])
    expect(coming[2]!.from).toBe(NOW + 3.2 * 24 * HOUR)
    expect(new Set(coming.map(c => c.id)).size).toBe(3)
  })
})
