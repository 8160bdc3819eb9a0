import type pg from 'pg'
import { LIVE_MOST_BYTES, type LiveMessage } from '~contract/pour'
import { CHANNEL } from '../store/announce'
import { databaseOf } from '../database'
import { epochOf } from '../store/epoch'
import { asReading } from '../store/pools'
import { pourEventsAfter } from '../store/pours'
import { within } from '../store/scope'
import { Refused } from '../refused'

/** Is told what changed; `lost` when nothing more will be heard, so that a browser comes back and catches up. */
export interface Listener {
  readonly tell: (message: LiveMessage) => void
  readonly lost: () => void
  /** Where its workshop's records are: with that database it is lost. */
  readonly home: string | null
  /** With which it ends. */
  readonly session?: string
  /** One of a class’s own streams, which are counted apart. */
  readonly class?: string
  /** Of this device it hears, and of nothing else. */
  readonly device?: string
  /** A line of that device’s. */
  readonly read?: (line: object) => void
}

/** Streams of one workshop at one server; a browser has one, however many tabs it has open. */
export const MOST_STREAMS = 300
/** Those of one class at one server: each seat has one, and a phone that comes back may have two for a moment. */
export const MOST_CLASS_STREAMS = 200

const listeners = new Map<string, Set<Listener>>()
/** What listens to one database. */
interface Ear {
  listening?: Promise<void>
  /** Looked at each time that listening begins: the database may have been moved meanwhile. */
  epoch: string
}
const ears = new Map<string | null, Ear>()
function earOf(home: string | null): Ear {
  const ear = ears.get(home) ?? { epoch: '' }
  ears.set(home, ear)
  return ear
}
/** Of the records of a home, or of the first database. */
export const epochNow = (home: string | null): string => earOf(home).epoch

/** A connection that says nothing at all is asked whether it is still there. */
const ASKED_EVERY_MS = 10_000, ASKED_FOR_MS = 5000
/** Between tries to listen again. */
const FIRST_RETRY_MS = 250, LAST_RETRY_MS = 5000

/**
 * What is told to browsers: with the pour's new entries, read once for all of them, where they are few.
 * @param home where it was heard: there its records are
 */
async function told(home: string | null, workshop: string, message: LiveMessage): Promise<LiveMessage> {
  if (message.what !== 'pour' || message.after === 0) return message
  const { db } = await databaseOf(home)
  const news = await pourEventsAfter(within(db, workshop), message.pour, message.after).catch(() => undefined)
  const whole = news && { ...message, seq: news.seq, events: news.events }
  return whole && JSON.stringify(whole).length <= LIVE_MOST_BYTES ? whole : message
}

interface Announced {
  readonly workshop: string
  readonly message?: LiveMessage
  readonly session?: string
  readonly device?: string
  /** None when the device was taken out. */
  readonly line?: object | null
  /** Its records are somewhere else from now on. */
  readonly moved?: boolean
}

function loseAll(lost: Iterable<Listener>): void {
  for (const listener of [...lost]) listener.lost()
}

function heard(home: string | null, payload: string | undefined): void {
  const { workshop, message, session, device, line, moved } = JSON.parse(payload ?? '{}') as Announced
  if (moved) loseAll(listeners.get(workshop) ?? [])
  if (session !== undefined) loseAll([...listeners.get(workshop) ?? []].filter(l => l.session === session))
  const reading = device === undefined ? [] : [...listeners.get(workshop) ?? []].filter(l => l.device === device)
  for (const listener of reading) {
    if (line) listener.read?.(line)
    else listener.lost()
  }
  if (!message || !listeners.has(workshop)) return
  void told(home, workshop, message).then((whole) => {
    for (const listener of listeners.get(workshop) ?? []) if (!listener.device) listener.tell(whole)
  })
}

/** Rejects when the connection does not answer in time. */
function answers(client: pg.PoolClient): Promise<unknown> {
  return new Promise((resolve, reject) => {
    const timer = setTimeout(() => reject(new Error('The listening connection is silent.')), ASKED_FOR_MS)
    client.query('select 1').then(resolve, reject).finally(() => clearTimeout(timer))
  })
}

/** Everybody who hears of this database; of the first, all. */
function hearersOf(home: string | null): Listener[] {
  const hearers: Listener[] = []
  for (const [workshop, set] of listeners) {
    const gone = [...set].filter(l => home === null || l.home === home)
    for (const listener of gone) set.delete(listener)
    if (set.size === 0) listeners.delete(workshop)
    hearers.push(...gone)
  }
  return hearers
}

/**
 * Hands every announcement to the streams of its workshop. One connection to each database listens for the whole
 * process. When it breaks or falls silent all streams of it end: what was announced meanwhile was heard by nobody.
 */
async function listen(home: string | null): Promise<void> {
  const { pool, db } = await databaseOf(home), ear = earOf(home)
  const client = await asReading(() => pool.connect())
  let over = false
  const lost = () => {
    if (over) return
    over = true
    clearInterval(asking)
    ear.listening = undefined
    client.release(true)
    loseAll(hearersOf(home))
    void listenAgain(home)
  }
  client.once('error', lost)
  client.once('end', lost)
  client.on('notification', ({ payload }) => heard(home, payload))
  const asking = setInterval(() => void answers(client).catch(lost), ASKED_EVERY_MS)
  asking.unref()
  try {
    await client.query(`listen ${CHANNEL}`)
    ear.epoch = await epochOf(db)
  }
  catch (error) {
    lost()
    throw error
  }
}

/**
 * Tried for ever: the next stream finds it listening, and does not wait for the database to be found. From the start
 * on, so that whoever would put other records in the place of these sees that a server is at work in them.
 */
export async function listenAgain(home: string | null = null): Promise<void> {
  for (let wait = FIRST_RETRY_MS; earOf(home).listening === undefined; wait = Math.min(LAST_RETRY_MS, 2 * wait)) {
    await new Promise<void>(done => void setTimeout(done, wait).unref())
    await ensureListening(home).catch(() => {})
  }
}

function ensureListening(home: string | null): Promise<void> {
  const ear = earOf(home)
  ear.listening ??= listen(home).catch((error) => {
    ear.listening = undefined
    throw error
  })
  return ear.listening
}

/** How many are open at this server. */
export const openStreams = (): number => [...listeners.values()].reduce((n, set) => n + set.size, 0)

/** @returns a function that stops listening. @throws Refused when as many listen as may */
export async function subscribe(workshop: string, listener: Listener): Promise<() => void> {
  await Promise.all([ensureListening(null), ensureListening(listener.home)])
  const like = [...listeners.get(workshop) ?? []].filter(l => l.class === listener.class).length
  if (like >= (listener.class ? MOST_CLASS_STREAMS : MOST_STREAMS)) throw new Refused('too-many-streams')
  const set = listeners.get(workshop) ?? new Set()
  listeners.set(workshop, set.add(listener))
  return () => {
    set.delete(listener)
    if (set.size === 0 && listeners.get(workshop) === set) listeners.delete(workshop)
  }
}
