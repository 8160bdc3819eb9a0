import { describe, expect, it } from 'vitest'
import { needOf, type CastSummary } from '~core/pour/projection'
import { byNeed, groupCasts, groupLabel, needWords } from './groups'

const HOUR = 3_600_000, NOW = new Date(2027, 0, 14, 12, 0).getTime()
const cast = (id: string, change: Partial<CastSummary> = {}): CastSummary => ({
  id,
  label: `Bell-pull ${id.split('.')[1]}`,
  mould: 'Bell-pull',
  mouldId: 'bellpull',
  material: 'silicone',
  status: 'setting',
  powder: 'Casting plaster',
  ratio: 0.67,
  endUse: 'painted',
  readyWord: 'dry enough to paint',
  filledAt: NOW - HOUR,
  openFrom: NOW - HOUR / 2,
  openTo: NOW + HOUR / 2,
  defects: [],
  note: '',
  ...change,
})
const row = (c: CastSummary, pour = 'p') => ({ pour, pourName: 'Bell-pulls', cast: c, need: needOf(c, NOW) })

describe('what a cast needs', () => {
  it.each<[string, Partial<CastSummary>]>([
    ['open-now', {}],
    ['setting', { openFrom: NOW + 1, openTo: NOW + HOUR }],
    ['open-late', { openTo: NOW - 1.1 * HOUR }],
    ['judge', { status: 'opened', openedAt: NOW }],
    ['drying', { status: 'judged', openedAt: NOW, readyFrom: NOW - 1, readyTo: NOW + HOUR }],
    ['ready-now', { status: 'judged', openedAt: NOW, readyFrom: NOW - 2, readyTo: NOW - 1 }],
    ['kept-damp', { status: 'judged', openedAt: NOW }],
    ['none', { status: 'finished' }],
    ['none', { status: 'waiting', openFrom: undefined }],
  ])('%s', (need, change) => {
    const c = cast('1.1', change)
    expect(needOf(c, NOW)).toBe(need)
    expect(
      needWords({ key: '', pour: '', pourName: '', need: needOf(c, NOW), label: '', first: c, casts: [c] }, NOW).when,
    ).toBeDefined()
  })
})

describe('groups on the shelf', () => {
  it('casts in the same state go together under one label', () => {
    const groups = groupCasts([
      row(cast('1.2')),
      row(cast('1.1')),
      row(cast('1.3')),
      row(cast('1.5', { status: 'opened', openedAt: NOW })),
    ])
    expect(groups.map(g => [g.label, g.need])).toEqual([['Bell-pull 1–3', 'open-now'], ['Bell-pull 5', 'judge']])
    expect(groupLabel([cast('1.1'), cast('1.2'), cast('1.5')])).toBe('Bell-pull 1, 2 and 5')
  })

  it('a row stays the same row while its casts are opened, listed with their drying, and looked over', () => {
    const told: Partial<CastSummary>[] = [{}, { status: 'opened', openedAt: NOW }, {
      status: 'opened',
      openedAt: NOW,
      drying: {
        standing: { place: 'rack', air: { celsius: 18, humidity: 0.5 } },
        since: NOW,
        weighed: 0,
      },
    }, { status: 'judged', verdict: 'good', openedAt: NOW, readyFrom: NOW + 1, readyTo: NOW + 2 }]
    const keys = told.map(change =>
      groupCasts([row(cast('1.2', change)), row(cast('1.1', change)), row(cast('2.1'))]).map(g => g.key),
    )
    expect(keys.map(k => k.includes('p|1.1'))).toEqual([true, true, true, true])
    expect(new Set(keys.flat())).toEqual(new Set(['p|1.1', 'p|2.1']))
  })

  it('what is late comes before what is due, and that before what only dries', () => {
    const late = cast('1.1', { openTo: NOW - 2 * HOUR }),
      due = cast('1.2'),
      dries = cast('1.3', { status: 'judged', openedAt: NOW, readyFrom: NOW + 1, readyTo: NOW + 2 })
    expect(groupCasts([row(dries), row(due), row(late)]).sort(byNeed).map(g => g.need)).toEqual([
      'open-late',
      'open-now',
      'drying',
    ])
  })
})
