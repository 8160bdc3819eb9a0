import { Hash } from '@adonisjs/hash'
import { Scrypt } from '@adonisjs/hash/drivers/scrypt'
import PQueue from 'p-queue'
import { Refused } from '../refused'

/**
 * Passwords: hashed with scrypt (RFC 7914) at the library's own costs. Hashing is dear on purpose, so strangers wait
 * their turn behind each other and are sent away when there are too many; people who are known do not wait for them.
 */
const hash = new Hash(new Scrypt({}))
const known = new PQueue({ concurrency: 2 }), strangers = new PQueue({ concurrency: 1 })
const MOST_WAITING = 12

let nobody: Promise<string> | undefined

/** @param stranger whether anybody could ask for this @throws Refused when too many strangers wait */
function inTurn<T>(stranger: boolean, work: () => Promise<T>): Promise<T> {
  if (stranger && strangers.size >= MOST_WAITING) throw new Refused('busy')
  return (stranger ? strangers : known).add(work)
}

export function hashPassword(password: string, stranger = false): Promise<string> {
  return inTurn(stranger, () => hash.make(password))
}

/**
 * Whether this is the password. Where there is no account it takes as long. @throws Refused as above
 */
export async function isPassword(
  hashed: string | undefined,
  password: string,
  stranger: boolean,
): Promise<boolean> {
  nobody ??= hash.make('no one has this password')
  const against = hashed ?? await nobody
  const right = await inTurn(stranger, () => hash.verify(against, password)).catch((error) => {
    if (error instanceof Refused) throw error
    // A hash that is none: nobody has this password.
    return false
  })
  return right && hashed !== undefined
}

type Check = (password: string, own: readonly string[]) => number
let checking: Promise<Check> | undefined

/** The list of passwords that many people have is large, and is fetched when somebody chooses one. */
async function loadCheck(): Promise<Check> {
  const [{ ZxcvbnFactory }, common] = await Promise.all([
    import('@zxcvbn-ts/core'), import('@zxcvbn-ts/language-common'),
  ])
  const judge = new ZxcvbnFactory({ dictionary: common.dictionary, graphs: common.adjacencyGraphs })
  return (password, own) => judge.check(password, [...own]).score
}

/** Scores of the library: 0 and 1 fall to a few million guesses. */
const TOO_EASY = 1

/**
 * @param own names and addresses of whoever chooses it
 * @throws Refused when many people have this password, or when it is little more than their own name
 */
export async function refuseEasy(password: string, own: readonly string[]): Promise<void> {
  const parts = own.flatMap(o => [o, ...o.split(/[^\p{L}\p{N}]+/u)]).filter(o => o.length >= 3)
  checking ??= loadCheck()
  const check = await checking
  if (check(password, parts) > TOO_EASY) return
  throw new Refused(check(password, []) > TOO_EASY ? 'own-name' : 'common-password', 'password')
}
