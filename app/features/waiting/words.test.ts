import { expect, it } from 'vitest'
import { METRIC } from '~core/units/units'
import { MOULDS } from '~demo/saltmarsh'
import type { Change } from '~/sync/kept-changes'
import { differencesOf } from './words'

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
