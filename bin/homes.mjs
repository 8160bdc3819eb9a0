// @ts-check
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { startCluster } from './cluster.mjs'
import { DATA } from './setup.mjs'
import { Plain } from './say.mjs'

/** Databases beside the first, into which workshops may be moved; each a cluster of its own (docs/operate.md). */

const KNOWN = join(DATA, 'homes.json')

/** @returns {string[]} names in HOMES="second third", and those said before: somebody's records may be there */
export function homeNames() {
  const said = (process.env.HOMES ?? '').split(/[\s,]+/).filter(Boolean)
  for (const name of said)
    if (!/^[a-z][a-z0-9-]{0,30}$/.test(name)) throw new Plain(`HOMES are names of small letters: “${name}” is none.`)
  /** @type {string[]} */
  const before = existsSync(KNOWN) ? JSON.parse(readFileSync(KNOWN, 'utf8')) : []
  const names = [...new Set([...before, ...said])]
  if (names.length > before.length) writeFileSync(KNOWN, JSON.stringify(names))
  return names
}

/**
 * @param {readonly string[]} names
 * @returns {Promise<{ addresses: Record<string, string>, keep: () => void, stop: () => void }>}
 */
export async function startHomes(names) {
  /** @type {Record<string, string>} */
  const addresses = {}, clusters = /** @type {Awaited<ReturnType<typeof startCluster>>[]} */ ([])
  const stop = () => clusters.forEach(c => c.stop())
  try {
    for (const name of names) {
      const cluster = await startCluster(join(DATA, 'homes', name))
      clusters.push(cluster)
      addresses[name] = cluster.url(`home_${name.replaceAll('-', '_')}`)
    }
  }
  catch (error) {
    stop()
    throw error
  }
  return { addresses, keep: () => clusters.forEach(c => c.keep()), stop }
}
