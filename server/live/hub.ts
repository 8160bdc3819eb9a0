import type pg from 'pg'
import type { LiveMessage } from '~contract/pour'
import { CHANNEL } from '../store/announce'
import { database } from '../database'

type Listener = (message: LiveMessage) => void

const listeners = new Map<string, Set<Listener>>()
let listening: Promise<void> | undefined

/**
 * Hands every announcement to the streams of its workshop. One connection listens for the whole process; when it
 * breaks, streams are ended so that browsers come back and catch up.
 */
async function listen(): Promise<void> {
  const { pool } = await database()
  const client: pg.PoolClient = await pool.connect()
  const lost = () => {
    listening = undefined
    client.release(true)
    for (const set of listeners.values()) for (const listener of set) listener({ what: 'people' })
    if (listeners.size > 0) setTimeout(() => void ensureListening().catch(() => {}), 1000).unref()
  }
  client.once('error', lost)
  client.on('notification', ({ payload }) => {
    const { workshop, message } = JSON.parse(payload ?? '{}') as { workshop: string, message: LiveMessage }
    for (const listener of listeners.get(workshop) ?? []) listener(message)
  })
  await client.query(`listen ${CHANNEL}`)
}

function ensureListening(): Promise<void> {
  listening ??= listen().catch((error) => {
    listening = undefined
    throw error
  })
  return listening
}

/** @returns a function that stops listening. */
export async function subscribe(workshop: string, listener: Listener): Promise<() => void> {
  await ensureListening()
  const set = listeners.get(workshop) ?? new Set()
  listeners.set(workshop, set.add(listener))
  return () => {
    set.delete(listener)
    if (set.size === 0) listeners.delete(workshop)
  }
}
