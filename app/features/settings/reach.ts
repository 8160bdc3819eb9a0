import { ask } from '~/sync/api'
import { onOwnMachine } from '~/sync/own-machine'

/**
 * The address under which others reach this server: links that are handed over begin with it. On the server's own
 * machine that is the shared one, if there is one.
 */
export async function reachable(): Promise<string> {
  if (!onOwnMachine()) return location.origin
  const { share } = await ask('GET share')
  return share?.addresses[0] ?? location.origin
}
