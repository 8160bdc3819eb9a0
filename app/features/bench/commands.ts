import type { Sign } from '~core/plan/stages'

/**
 * What can be said to the bench instead of pressed. Each begins with “bench”, so that talk in the room moves nothing.
 */
export type Command = { readonly do: 'next' | 'back' | 'mute' | 'help' } | { readonly do: 'sign', readonly sign: Sign }

const WORDS: readonly (readonly [RegExp, Command])[] = [
  [/^(next|done|go on|ready)$/, { do: 'next' }],
  [/^(back|take (it|that) back)$/, { do: 'back' }],
  [/^(mute|quiet|be quiet)$/, { do: 'mute' }],
  [/^(help|something is wrong|trouble)$/, { do: 'help' }],
  [/^islands?( stay dry)?$/, { do: 'sign', sign: 'islands' }],
  [/^(a )?crust( all over)?$/, { do: 'sign', sign: 'crust' }],
  [/^lumps?$/, { do: 'sign', sign: 'lumps' }],
  [/^webb?ing$/, { do: 'sign', sign: 'webbing' }],
  [/^((it )?will not pour|too stiff|won't pour)$/, { do: 'sign', sign: 'will-not-pour' }],
  [/^(the )?gloss( is)? gone$/, { do: 'sign', sign: 'gloss-gone' }],
  [/^(it is )?warm$/, { do: 'sign', sign: 'warm' }],
  [/^(it is )?warmest$/, { do: 'sign', sign: 'warmest' }],
  [/^(it is )?(cool|cold) again$/, { do: 'sign', sign: 'cold-again' }],
]

/** @returns what was asked for, or undefined when it was not for the bench or not understood. */
export function commandOf(heard: string): Command | undefined {
  const words = heard.toLowerCase().replace(/[’]/g, '\'').replace(/[^a-z' ]+/g, ' ').replace(/\s+/g, ' ').trim()
  const said = /^bench (.+)$/.exec(words)?.[1]
  return said === undefined ? undefined : WORDS.find(([pattern]) => pattern.test(said))?.[1]
}

/** Said on the screen beside “Listen”. */
export const COMMAND_HINT = 'Say “bench, next”, “bench, back”, “bench, gloss gone”.'
