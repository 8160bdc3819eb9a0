import { scenario, type ScenarioId } from './scenarios'
import { follow } from './script'
import type { Log } from './types'

/** Runs worth reading before one's own: somebody's slip in a bucket, played by hand, and what came of it. */
export const EXAMPLES: readonly { readonly id: ScenarioId, readonly seed: number }[] = [
  { id: 'heap', seed: 12 }, { id: 'over-stirred', seed: 7 }, { id: 'hand', seed: 5 },
]

/** What was done, act by act. */
export function exampleLog({ id, seed }: typeof EXAMPLES[number]): Log {
  const { setup, slip } = scenario(id)
  return follow(setup, seed, slip).log
}
