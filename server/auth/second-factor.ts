import { createCipheriv, createDecipheriv, randomBytes, randomInt } from 'node:crypto'
import { Secret, TOTP } from 'otpauth'
import { setSecondFactor, takeRecovery, takeStep, type accountById } from '../store/accounts'
import type { Db } from '../store/open'
import { hashOf } from '../store/sessions'
import { keyFor } from './server-key'

/** Time codes of six digits, a new one each half minute (RFC 6238), as a second thing that signing in asks for. */
const STEP_S = 30
/** Clocks of phones stray: a code is taken a step early or late. */
const STRAY = 1
const RECOVERY_CODES = 10

type Account = Awaited<ReturnType<typeof accountById>>

const sealingKey = () => keyFor('second factor')

function seal(text: string): string {
  const iv = randomBytes(12), cipher = createCipheriv('aes-256-gcm', sealingKey(), iv)
  const sealed = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()])
  return Buffer.concat([iv, cipher.getAuthTag(), sealed]).toString('base64')
}

function unseal(sealed: string): string {
  const bytes = Buffer.from(sealed, 'base64'), decipher = createDecipheriv('aes-256-gcm', sealingKey(), bytes.subarray(0, 12))
  decipher.setAuthTag(bytes.subarray(12, 28))
  return Buffer.concat([decipher.update(bytes.subarray(28)), decipher.final()]).toString('utf8')
}

function totp(secret: Secret, email: string): TOTP {
  return new TOTP({ issuer: 'Nine Ripples', label: email, secret, period: STEP_S, digits: 6, algorithm: 'SHA1' })
}

/** Offers a secret; it counts once a code of it was told. */
export async function offer(db: Db, account: Account): Promise<{ secret: string, uri: string }> {
  const secret = new Secret({ size: 20 })
  await setSecondFactor(db, account.id, { second_factor_asked: seal(secret.base32) })
  return { secret: secret.base32, uri: totp(secret, account.email).toString() }
}

/** Five letters, a dash, five more: without those that read like others. */
function recoveryCode(): string {
  const letters = 'abcdefghjkmnpqrstuvwxyz23456789'
  const five = () => Array.from({ length: 5 }, () => letters[randomInt(letters.length)]).join('')
  return `${five()}-${five()}`
}

async function isCode(db: Db, account: Account, sealed: string, code: string): Promise<boolean> {
  const delta = totp(Secret.fromBase32(unseal(sealed)), account.email).validate({ token: code, window: STRAY })
  return delta !== null && takeStep(db, account.id, Math.floor(Date.now() / 1000 / STEP_S) + delta)
}

/** Takes the offered secret on. @returns the recovery codes; undefined when the code is not of it */
export async function confirm(db: Db, account: Account, code: string): Promise<string[] | undefined> {
  if (!account.second_factor_asked || !await isCode(db, account, account.second_factor_asked, code)) return undefined
  const recovery = Array.from({ length: RECOVERY_CODES }, recoveryCode)
  await setSecondFactor(db, account.id, {
    second_factor: account.second_factor_asked, second_factor_asked: null, recovery_sha256: recovery.map(hashOf),
  })
  return recovery
}

export async function dropFactor(db: Db, accountId: string): Promise<void> {
  await setSecondFactor(db, accountId, { second_factor: null, second_factor_asked: null, recovery_sha256: [] })
}

/** Whether this code opens the account: one of the time, or a recovery code, each of them once. */
export async function opens(db: Db, account: Account, typed: string): Promise<boolean> {
  if (!account.second_factor) return true
  const code = typed.toLowerCase().replace(/\s/g, '')
  return /^\d{6}$/.test(code)
    ? isCode(db, account, account.second_factor, code)
    : takeRecovery(db, account.id, hashOf(code))
}
