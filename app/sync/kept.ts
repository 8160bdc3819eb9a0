import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import type { Answering, AnswerOf, Given } from '~contract/routes'
import { addressOf, ask, Refused, type Rest, type Where } from './api'
import { isGuestKey, nothingOf } from './guest'

/**
 * The last answer to each question that a screen asks, kept in this browser, so that every screen opens without a
 * network.
 */
interface Answers extends DBSchema {
  answers: {
    key: [string, string]
    value: { readonly who: string, readonly path: string, readonly at: number, readonly value: unknown }
  }
}

let opened: Promise<IDBPDatabase<Answers>> | undefined
function open(): Promise<IDBPDatabase<Answers>> {
  opened ??= openDB<Answers>('nine-ripples-answers', 1, {
    upgrade(db) {
      db.createObjectStore('answers', { keyPath: ['who', 'path'] })
    },
  })
  return opened
}

/** Raised whenever all is forgotten: what was asked before that is kept by nobody when it is answered after it. */
let forgotten = 0

/** A browser without room, or one that keeps nothing, still works while there is a network. */
async function keepUnless(over: () => boolean, answer: Answers['answers']['value']): Promise<void> {
  try {
    const db = await open()
    if (!over()) await db.put('answers', answer)
  }
  catch { /* nothing is kept */ }
}

/** Whether it was answered from here; `at` is when the server said it, in this device's milliseconds. */
interface Answered<T> { readonly value: T, readonly at: number, readonly fromHere: boolean }

/** What a question is kept under: its address without what all have in common. */
function keyOf<N extends Answering>(name: N, ...given: Rest<N>): string {
  return addressOf(name, ...given as unknown as Where<N>).slice('/api/'.length)
}

/**
 * Asks the server, and where it does not answer, gives what it answered last to the same person.
 * @param who whose answers these are: nobody else who signs in here is given them.
 * @throws Refused as `api` does, when there is nothing kept or the server refuses.
 */
export async function remembered<N extends Answering>(
  who: string,
  name: N,
  ...given: Rest<N>
): Promise<Answered<AnswerOf<N>>> {
  const path = keyOf(name, ...given), before = forgotten, nothing = isGuestKey(who) ? nothingOf(name) : undefined
  if (nothing !== undefined) return { value: nothing as AnswerOf<N>, at: Date.now(), fromHere: false }
  try {
    const value = await ask(name, ...given)
    const at = Date.now()
    void keepUnless(() => before !== forgotten, { who, path, at, value })
    return { value, at, fromHere: false }
  }
  catch (error) {
    if (!(error instanceof Refused) || (error.status !== 0 && error.status !== 503)) throw error
    const kept = await open().then(db => db.get('answers', [who, path])).catch(() => undefined)
    if (!kept) throw error
    return { value: kept.value as AnswerOf<N>, at: kept.at, fromHere: true }
  }
}

/** Keeps what is known by now as the answer to a question: more than the server last said to it. */
export async function keepAnswer<N extends Answering>(
  who: string,
  name: N,
  given: Given<N>,
  value: AnswerOf<N>,
): Promise<void> {
  const path = keyOf(name, ...[given] as Rest<N>), before = forgotten
  if (who !== '' && !isGuestKey(who)) await keepUnless(() => before !== forgotten, { who, path, at: Date.now(), value })
}

/** What is needed to plan and pour where no network is. */
const LISTS = [
  ...(['mould', 'bucket', 'bag', 'order', 'job', 'page'] as const).map(kind => ['GET library/:kind', { params: { kind } }] as const),
  ['GET plans', undefined],
] as const
/** Keeps the lists that this browser never opened, so that they are here when the network is not. */
export async function keepListsHere(who: string): Promise<void> {
  const kept = new Set(await keptOf(who))
  for (const [name, given] of LISTS) {
    if (who === '' || kept.has(keyOf(name, ...(given ? [given] : []) as Rest<typeof name>))) continue
    await remembered(who, name, ...(given ? [given] : []) as Rest<typeof name>).catch(() => {})
  }
}

/** Under what this person's answers are kept: paths of the interface. */
export async function keptOf(who: string): Promise<readonly string[]> {
  const keys = await open().then(db => db.getAllKeys('answers', IDBKeyRange.bound([who, ''], [who, '\uFFFF'])))
    .catch(() => [])
  return keys.map(([, path]) => path)
}

export async function keptValue<T>(who: string, path: string): Promise<T | undefined> {
  return (await open().then(db => db.get('answers', [who, path])).catch(() => undefined))?.value as T | undefined
}

/** Whether a workshop's answers are kept here: somebody is signed in, or was when this browser last heard. */
export async function holdsAnswers(): Promise<boolean> {
  // What is asked before anybody is known is kept under no name.
  const somebodys = IDBKeyRange.lowerBound(['\u0001', ''])
  return open().then(db => db.count('answers', somebodys)).then(n => n > 0, () => false)
}

/** Leaves nothing of anybody's behind: they signed out. */
export async function forgetAnswers(): Promise<void> {
  forgotten++
  await open().then(db => db.clear('answers')).catch(() => {})
}
