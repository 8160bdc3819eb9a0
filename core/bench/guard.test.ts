import { expect, it } from 'vitest'
import { unmeantFor } from './guard'

it('a press just after a step began is not meant, unless the step is really that short', () => {
  expect(unmeantFor(true, 120)).toBe(1500)
  expect(unmeantFor(true)).toBe(1500)
  // A thumb-sized mould is poured in two seconds.
  expect(unmeantFor(true, 2)).toBe(1000)
  expect(unmeantFor(true, 0.1)).toBe(450)
  expect(unmeantFor(false, 120)).toBe(450)
})
