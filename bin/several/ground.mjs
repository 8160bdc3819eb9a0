// @ts-check
import { randomBytes, randomInt } from 'node:crypto'
import { chmodSync, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { fittingFolder } from '../cluster.mjs'
import { isFree } from '../port.mjs'
import { databaseUser } from './programs.mjs'

/**
 * @typedef {object} Ports each on loopback
 * @property {number[]} etcd @property {number[]} etcdPeer @property {number[]} postgres @property {number[]} rest
 * @property {number[]} apps @property {number} primary @property {number} standbys @property {number} product
 *
 * @typedef {object} Ground
 * @property {string} folder @property {Ports} ports @property {{ uid?: number, gid?: number }} user
 * @property {Readonly<Record<Secret, string>>} secrets
 *
 * @typedef {'etcd' | 'rest' | 'keeper' | 'standby' | 'rewinder' | 'workshop' | 'server'} Secret
 */

const DATABASES = 3

/**
 * Below those that Linux lends to whoever connects (ip_local_port_range): what is chosen now is still free when a
 * database comes up on it a while later. @param {number} n
 */
async function freePorts(n) {
  /** @type {number[]} */
  const found = []
  while (found.length < n) {
    const port = randomInt(20_000, 32_000)
    if (!found.includes(port) && await isFree('127.0.0.1', port)) found.push(port)
  }
  return found
}

/** @template T @param {string} file @param {() => Promise<T> | T} make @returns {Promise<T>} */
async function kept(file, make) {
  if (existsSync(file)) return JSON.parse(readFileSync(file, 'utf8'))
  const made = await make()
  writeFileSync(file, JSON.stringify(made, null, 2), { mode: 0o600 })
  return made
}

/**
 * The folder, ports and secrets of several servers: made once, kept after that.
 * @param {string} wanted @param {{ apps: number, product?: number | undefined }} options @returns {Promise<Ground>}
 */
export async function groundIn(wanted, { apps, product }) {
  const folder = fittingFolder(wanted)
  mkdirSync(folder, { recursive: true })
  chmodSync(folder, 0o711)
  /** @type {Ports} */
  const ports = await kept(join(folder, 'ports.json'), async () => {
    const all = await freePorts(4 * DATABASES + 3), take = () => all.splice(0, DATABASES), one = () => all.pop() ?? 0
    return {
      etcd: take(), etcdPeer: take(), postgres: take(), rest: take(), apps: [], primary: one(), standbys: one(),
      product: one(),
    }
  })
  const secrets = await kept(join(folder, 'secrets.json'), () => Object.fromEntries(
    ['etcd', 'rest', 'keeper', 'standby', 'rewinder', 'workshop', 'server'].map(of => [of, randomBytes(24).toString('base64url')])))
  return {
    folder,
    ports: { ...ports, apps: await freePorts(apps), ...product && { product } },
    secrets: /** @type {Ground['secrets']} */ (secrets),
    user: databaseUser(),
  }
}
