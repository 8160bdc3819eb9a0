import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto'
import type { AuthenticatorTransport } from '@simplewebauthn/server'
import type { H3Event } from 'h3'
import ipaddr from 'ipaddr.js'
import type { NewPasskeyBody, PasskeyUse } from '~contract/account'
import { askedAt } from '../asked-at'
import { Refused } from '../refused'
import type { Db } from '../store/open'
import { addPasskey, credentialsOf, notePasskeyUse, passkeyByCredential, takeChallenge } from '../store/passkeys'
import { keyFor } from './server-key'
import type { Here } from './session'

/**
 * Signing in with a key that a phone or computer holds and opens by finger, face or its own code (Web Authentication,
 * level 2). Such a key is two things at once, so no time code is asked for besides. Browsers make them only for hosts
 * that have a name.
 */
const library = () => import('@simplewebauthn/server')

/** How long an answer may take. */
const PATIENCE_MS = 300_000
type Use = 'make' | 'sign in'

/** The name that keys of this address belong to; undefined where it is a number. */
export function passkeyHost(event: H3Event): string | undefined {
  const host = askedAt(event)?.hostname
  return host === undefined || host.startsWith('[') || ipaddr.isValid(host) ? undefined : host
}

interface Where { readonly host: string, readonly origin: string }
/** @throws Refused where the address is a number */
function whereOf(event: H3Event): Where {
  const host = passkeyHost(event)
  if (host === undefined) throw new Refused('passkey-needs-name')
  return { host, origin: askedAt(event)!.origin }
}

/** Nothing is kept of a challenge that nobody answers: it proves itself by the server's own key. */
const proofOf = (use: Use, about: string, begin: Buffer) =>
  createHmac('sha256', keyFor('passkey challenges')).update(`${use} ${about} `).update(begin).digest().subarray(0, 16)

function makeChallenge(use: Use, about: string): Uint8Array<ArrayBuffer> {
  const begin = Buffer.alloc(24)
  randomBytes(16).copy(begin)
  begin.writeBigUInt64BE(BigInt(Date.now()), 16)
  return new Uint8Array(Buffer.concat([begin, proofOf(use, about, begin)]))
}

/** Whether this server asked it, for this, not long ago. */
function isOurs(use: Use, about: string, challenge: string): boolean {
  const told = Buffer.from(challenge, 'base64url')
  if (told.length !== 40) return false
  const begin = told.subarray(0, 24), age = Date.now() - Number(begin.readBigUInt64BE(16))
  return timingSafeEqual(proofOf(use, about, begin), told.subarray(24)) && age >= 0 && age <= PATIENCE_MS
}

const transportsOf = (told: readonly string[] | undefined) => [...told ?? []] as AuthenticatorTransport[]

/** What this person's device is asked to make. */
export async function askToMake(event: H3Event, db: Db, person: Here) {
  const { host } = whereOf(event), { generateRegistrationOptions } = await library()
  const known = await credentialsOf(db, person.accountId)
  return { ...await generateRegistrationOptions({
    rpName: 'Nine Ripples',
    rpID: host,
    userName: person.email,
    userDisplayName: person.name,
    userID: new Uint8Array(Buffer.from(person.accountId)),
    challenge: makeChallenge('make', person.accountId),
    timeout: PATIENCE_MS,
    attestationType: 'none',
    excludeCredentials: known.map(k => ({ id: k.credential, transports: transportsOf(k.transports) })),
    authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
  }) }
}

/** Takes on what it made. @throws Refused when that is no answer to what was asked */
export async function takeOn(event: H3Event, db: Db, person: Here, { key, name }: NewPasskeyBody): Promise<void> {
  const { host, origin } = whereOf(event), { verifyRegistrationResponse } = await library()
  const made = await verifyRegistrationResponse({
    response: { ...key, response: { ...key.response, transports: transportsOf(key.response.transports) } },
    expectedChallenge: told => isOurs('make', person.accountId, told),
    expectedOrigin: origin,
    expectedRPID: host,
  }).catch(() => undefined)
  if (!made?.verified) throw new Refused('passkey-not-made')
  const { id, publicKey, counter } = made.registrationInfo.credential
  await addPasskey(db, {
    accountId: person.accountId,
    host,
    credential: id,
    publicKey: Buffer.from(publicKey).toString('base64url'),
    counter,
    transports: key.response.transports ?? [],
    name,
  })
}

/** What a device is asked that shall sign somebody in: whichever key it has for this host. */
export async function askToSignIn(event: H3Event) {
  const { host } = whereOf(event), { generateAuthenticationOptions } = await library()
  return { ...await generateAuthenticationOptions({
    rpID: host, challenge: makeChallenge('sign in', host), timeout: PATIENCE_MS, userVerification: 'required',
  }) }
}

/** @returns the account that this answer opens. @throws Refused when it opens none, or was used before */
export async function accountOfPasskey(event: H3Event, db: Db, use: PasskeyUse): Promise<string> {
  const { host, origin } = whereOf(event), { verifyAuthenticationResponse } = await library()
  const known = await passkeyByCredential(db, use.id)
  if (!known) throw new Refused('passkey-not-known')
  let challenge = ''
  const answer = await verifyAuthenticationResponse({
    response: use,
    expectedChallenge: (told) => {
      challenge = told
      return isOurs('sign in', host, told)
    },
    expectedOrigin: origin,
    expectedRPID: host,
    credential: {
      id: known.credential, publicKey: new Uint8Array(Buffer.from(known.public_key, 'base64url')), counter: known.counter,
      transports: transportsOf(known.transports),
    },
  }).catch(() => undefined)
  if (!answer?.verified || !await takeChallenge(db, challenge)) throw new Refused('passkey-not-known')
  await notePasskeyUse(db, known.id, answer.authenticationInfo.newCounter)
  return known.account_id
}
