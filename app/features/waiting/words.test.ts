import { expect, it } from 'vitest'
import { METRIC } from '~core/units/units'
import { MOULDS } from '~demo/saltmarsh'
import type { Change } from '~/sync/kept-changes'
import { choiceWords, differencesOf } from './words'

const change = (mine: object, theirs: object) => ({
  target: { what: 'item', kind: 'mould', id: 'm' },
  body: { ...MOULDS.lantern, ...mine },
  conflict: { theirs: { revision: 2, body: { ...MOULDS.lantern, ...theirs } } },
}) as unknown as Change

it('two versions are set side by side where they read otherwise, and named where a line cannot tell them apart', () => {
  const volume = { value: 4.1e-4, low: 4e-4, high: 4.2e-4 }
  expect(differencesOf(change({ name: 'Mine', volume, cost: 3, copies: 2 }, {
    name: 'Theirs', volume: { ...volume, low: 4.000001e-4 }, cost: 4, copies: undefined,
  }), METRIC)).toEqual([
    { field: 'name', mine: 'Mine', theirs: 'Theirs' },
    { field: 'volume' },
    { field: 'how many there are', mine: '2', theirs: 'not said' },
    { field: 'cost' },
  ])
})

it('nothing is kept as two where one of the versions is that it was put away', () => {
  const changed = change({}, { name: 'Theirs' }), away = { ...changed, body: undefined },
    gone = { ...changed, conflict: { here: away } } as unknown as Change
  expect(Object.keys(choiceWords(changed).ways)).toEqual(['both', 'mine', 'theirs'])
  expect(choiceWords(away).ways).toEqual({ mine: 'Put it away', theirs: 'Keep it as it was changed' })
  expect(choiceWords(gone).ways).toEqual({ both: 'Keep it as a new one', theirs: 'Leave it put away' })
  expect(choiceWords(gone).met).toContain('one tab')
})
