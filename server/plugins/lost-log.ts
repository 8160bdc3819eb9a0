import { defineNitroPlugin } from '#imports'

/**
 * Whoever reads the log may go away. Then its lines are lost and nothing else: left alone, each would be an error of
 * its own, told to the same log, for ever.
 */
export default defineNitroPlugin(() => {
  for (const log of [process.stdout, process.stderr]) log.on('error', () => {})
})
