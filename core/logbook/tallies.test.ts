import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { CastSummary, PourSummary } from '../pour/projection'
import { changeOf, factsOf, NO_COUNTS, searchWords, talliesOf, withBeginnings, wordsOf, type Tally } from './tallies'

const AT = Date.UTC(2026, 10, 3)
const cast = (over: Partial<CastSummary> = {}): CastSummary => ({
  id: '1.1',
  label: 'Tile 1',
  mould: 'Tile',
  mouldId: 'm1',
  material: 'silicone',
  status: 'judged',
  powder: 'Pottery plaster',
  ratio: 0.7,
  endUse: 'display',
  readyWord: 'dry',
  defects: [],
  note: '',
  filledAt: AT,
  verdict: 'good',
  ...over,
})
const pour = (over: Partial<PourSummary> = {}): PourSummary => ({
  name: 'Blüten, two',
  status: 'finished',
  classId: 'pottery-plaster',
  powder: 'Pottery plaster',
  school: 'weighed',
  endUse: 'display',
  moulds: [{ name: 'Tile', count: 2 }],
  batches: 1,
  ratio: { planned: 0.7, low: 0.69, high: 0.71, actual: 0.75 },
  startedAt: AT,
  step: { stage: 'set', instruction: '', batch: 0 },
  verdicts: { good: 1, second: 0, waste: 1 },
  defects: ['void'],
  glyph: [],
  bagId: 'b1',
  powderUsed: 1.2344,
  cost: { total: 3.456, pieces: 1 },
  ...over,
})
const casts = [
  cast({ took: 0.00064 }),
  cast({ id: '1.2', verdict: 'waste', defects: ['void'], note: 'at the left ear' }),
]

describe('looking for a pour', () => {
  it('reads words as they are typed: without accents, capitals or signs', () => {
    expect(wordsOf('Blüten, TWO: two-to-one (7:5)!')).toEqual(['bluten', 'two', 'to', 'one', '7', '5'])
    expect(wordsOf('  ’ " \' \\ & | ! :* ')).toEqual([])
  })

  it('knows a word by its first letters, marked so that no word is taken for a beginning', () => {
    expect(withBeginnings(['tiles', 'to', 'tile'])).toEqual([
      'tiles',
      '^t',
      '^ti',
      '^til',
      '^tile',
      'to',
      '^to',
      'tile',
    ])
    expect(wordsOf('^til')).toEqual(['til'])
  })

  it('finds by name, mould, powder, state, defect and note', () => {
    expect(searchWords(pour(), casts)).toEqual(
      expect.arrayContaining(['bluten', 'tile', 'pottery', 'finished', 'trapped', 'ear']),
    )
  })

  it('filters by what is so: a ratio missed by more than 5 % among it', () => {
    expect(factsOf(pour(), casts)).toEqual(
      expect.arrayContaining([
        'status:finished',
        'bag:b1',
        'mould:m1',
        'defect:void',
        'verdict:good',
        'verdict:waste',
        'ratio:missed',
      ]),
    )
    expect(factsOf(pour({ ratio: { planned: 0.7, low: 0.69, high: 0.71, actual: 0.72 } }), casts)).not.toContain(
      'ratio:missed',
    )
  })
})

describe('counting pours', () => {
  it('counts by month: all, by bag, by mould, by defect, in whole grams and hundredths', () => {
    const tallies = talliesOf(pour(), casts)
    expect(tallies.map(t => `${t.series} ${t.key} ${t.month}`)).toEqual([
      'all  2026-11',
      'bag b1 2026-11',
      'mould m1 2026-11',
      'defect void 2026-11',
    ])
    expect(tallies[0]!.counts).toEqual({
      pours: 1,
      casts: 2,
      judged: 2,
      good: 1,
      second: 0,
      waste: 1,
      powderGrams: 1234,
      costHundredths: 346,
      pieces: 1,
      tookCasts: 1,
      tookCubicMillimetres: 640_000,
    })
    expect(tallies[3]!.counts).toMatchObject({ pours: 1, casts: 1, waste: 1, costHundredths: 0 })
  })

  it('what was given up or never begun does not count, and a cost without a judged piece waits', () => {
    expect(talliesOf(pour({ status: 'abandoned' }), casts)).toEqual([])
    expect(talliesOf(pour({ startedAt: undefined }), casts)).toEqual([])
    expect(talliesOf(pour(), [cast({ verdict: undefined })])[0]!.counts).toMatchObject({
      judged: 0,
      costHundredths: 0,
      pieces: 0,
    })
  })

  it('changes, added up, always lead to what stands last', () => {
    const tally = fc.record({
      series: fc.constantFrom('all', 'mould'),
      key: fc.constantFrom('', 'a'),
      month: fc.constantFrom('2026-01', '2026-02'),
      n: fc.integer({ min: 1, max: 9 }),
    })
      .map(({ n, ...t }): Tally => ({ ...t as Tally, counts: { ...NO_COUNTS, pours: 1, casts: n } }))
    const sum = (list: readonly Tally[]) => changeOf([], list)
    fc.assert(
      fc.property(
        fc.array(fc.uniqueArray(tally, { selector: t => t.series + t.key + t.month, maxLength: 4 }), {
          minLength: 1,
          maxLength: 6,
        }),
        (states) => {
          const changes = states.flatMap((now, i) => changeOf(states[i - 1] ?? [], now))
          const order = (list: readonly Tally[]) =>
            [...list].sort((a, b) => JSON.stringify(a) < JSON.stringify(b) ? -1 : 1)
          expect(order(sum(changes))).toEqual(order(sum(states.at(-1)!)))
          expect(changeOf(states[0]!, states[0]!)).toEqual([])
        },
      ),
    )
  })
})
