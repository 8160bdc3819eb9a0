// @ts-check
import { lookup } from 'node:dns/promises'
import { hostname, networkInterfaces } from 'node:os'
import { join } from 'node:path'
import QRCode from 'qrcode'
import { fingerprintOf, isOld, isPrivate, keptAuthority, makeLeaf } from './authority.mjs'
import { DATA } from './setup.mjs'
import { Plain, say } from './say.mjs'

/** The workshop's network: at which addresses it reaches this machine, and with which certificate. */

const HTTPS_PORT = Number(process.env.SHARE_PORT ?? 4743), PLAIN_PORT = Number(process.env.SHARE_PLAIN_PORT ?? 4723)
/** How often it is looked whether the address has changed. */
const LOOK_MS = 15_000
/** Of machines within this machine, which no phone reaches. */
const INSIDE = /^(docker|veth|br-|virbr|vbox|vmnet|lxc|podman|cni|flannel|tun|tap)/

/** @typedef {import('../contract/share').ShareOrder} ShareOrder */
/** @typedef {import('../contract/share').ShareFacts} ShareFacts */

/** This machine's own name on its network (RFC 6762). */
export function localName() {
  const label = hostname().split('.')[0]?.toLowerCase().replace(/[^a-z0-9-]/g, '-').replace(/^-+|-+$/g, '')
  return `${label || 'workshop'}.local`
}

/** Private addresses by which others reach this machine, those of the fourth version first. @returns {string[]} */
export function ownAddresses() {
  const asked = process.env.SHARE_HOST
  if (asked) return [asked]
  return Object.entries(networkInterfaces()).filter(([name]) => !INSIDE.test(name)).flatMap(([, list]) => list ?? [])
    .filter(a => !a.internal && isPrivate(a.address) && !/^fe80/i.test(a.address))
    .sort((a, b) => a.family.localeCompare(b.family)).map(a => a.address)
}

/** Whether the network knows this name as this machine. @param {string} name @param {readonly string[]} addresses */
async function isKnownAs(name, addresses) {
  return lookup(name, { all: true }).then(found => found.some(f => addresses.includes(f.address)), () => false)
}

const inUrl = (/** @type {string} */ address) => address.includes(':') ? `[${address}]` : address

/**
 * What the server is told to open its doors on the network.
 * @param {import('./authority.mjs').Authority} authority @param {import('./authority.mjs').Leaf} leaf
 * @param {readonly string[]} addresses @param {boolean} byName @returns {ShareOrder}
 */
function orderOf(authority, leaf, addresses, byName) {
  const host = process.env.SHARE_HOST ?? (addresses.some(a => a.includes(':')) ? '::' : '0.0.0.0')
  const hosts = [...byName ? [authority.name] : [], ...addresses.map(inUrl)]
  return {
    cert: leaf.cert,
    key: leaf.key,
    authority: authority.root,
    facts: {
      addresses: hosts.map(h => `https://${h}:{https}`),
      install: `http://${inUrl(addresses[0] ?? '127.0.0.1')}:{plain}/install`,
      fingerprint: fingerprintOf(authority),
    },
    numbers: [...addresses],
    https: { host, port: HTTPS_PORT },
    plain: { host, port: PLAIN_PORT },
  }
}

/**
 * Keeps the server's doors on the network open: tells it where it is reached and what to show there, again whenever the
 * address changes or the certificate grows old.
 * @param {(order: ShareOrder) => void} tell
 * @param {{ folder?: string, name?: string, addressesNow?: () => string[], now?: () => number }} [world] for tests
 * @returns {Promise<{ look: () => Promise<void>, stop: () => void }>} look: whether anything changed, now
 * @throws Plain when there is no network
 */
export async function keepShared(tell, {
  folder = join(DATA, 'share'), name = localName(), addressesNow = ownAddresses, now = Date.now,
} = {}) {
  const authority = await keptAuthority(folder, name, now())
  /** @type {string[]} */
  let addresses = []
  /** @type {import('./authority.mjs').Leaf | undefined} */
  let leaf
  async function look() {
    const found = addressesNow()
    // Without a network for a moment: the old one is most likely the next.
    if (found.length === 0 || (leaf && found.join() === addresses.join() && !isOld(leaf, now()))) return
    addresses = found
    leaf = await makeLeaf(authority, addresses, now())
    tell(orderOf(authority, leaf, addresses, await isKnownAs(authority.name, addresses)))
  }
  await look()
  if (!leaf)
    throw new Plain('This machine is on no network of its own just now, so there is nothing to share on. Connect it and start again.')
  const looking = setInterval(() => void look(), LOOK_MS)
  looking.unref()
  return { look, stop: () => clearInterval(looking) }
}

/** @param {ShareFacts} facts */
export async function saySharing({ addresses, install, fingerprint }) {
  const code = await QRCode.toString(install, { type: 'terminal', small: true })
  say(`  On the workshop’s network: ${addresses.join('  or  ')}`)
  say(`  A phone that was never here opens this first:  ${install}\n`)
  say(code.replace(/^/gm, '  '))
  say(`  It shows a fingerprint, which must be this one:\n    ${fingerprint.slice(0, 47)}\n    ${fingerprint.slice(48)}\n`)
}
