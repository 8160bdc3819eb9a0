import { describe, expect, it } from 'vitest'
import { commandOf } from './commands'

describe('what is said to the bench', () => {
  it.each([
    ['Bench, next.', { do: 'next' }],
    ['bench take it back', { do: 'back' }],
    ['Bench: gloss is gone', { do: 'sign', sign: 'gloss-gone' }],
    ['bench won’t pour', { do: 'sign', sign: 'will-not-pour' }],
    ['BENCH COLD AGAIN', { do: 'sign', sign: 'cold-again' }],
  ])('%s', (heard, command) => expect(commandOf(heard)).toEqual(command))
  it.each(['next', 'the gloss is gone', 'bench sing a song', 'on the bench next', ''])(
    'talk in the room moves nothing: “%s”',
    heard => expect(commandOf(heard)).toBeUndefined(),
  )
})
