import { AsyncLocalStorage } from 'node:async_hooks'
import pg from 'pg'

/**
 * Connections to one database, some of them for what only reads. Where a standby must have what is acknowledged and
 * none is there, whoever writes waits with a connection in hand, until one is back: were there one pool for all, soon
 * nobody could read either.
 */
const asked = new AsyncLocalStorage<'to read'>()

/** Answers somebody who only asks to read. What is written in it all the same goes by `asWriting`. */
export const asReading = <R>(answer: () => R): R => asked.run('to read', answer)
export const asWriting = <R>(work: () => R): R => asked.exit(work)

export class Pools {
  private readonly writing: pg.Pool
  private readonly reading: pg.Pool
  /** @param settings of each connection, `max` of both pools together @param toRead so many of them only read */
  constructor(settings: pg.PoolConfig & { readonly max: number }, toRead: number) {
    this.writing = new pg.Pool({ ...settings, max: settings.max - toRead })
    this.reading = toRead > 0 ? new pg.Pool({ ...settings, max: toRead }) : this.writing
    // A connection that breaks (server restarted), idle or between two questions, must not end the process: the next
    // question says so, or opens a new one.
    for (const pool of this.both()) pool.on('error', () => {})
    this.onConnect(client => void client.on('error', () => {}))
  }

  private both(): readonly pg.Pool[] {
    return this.reading === this.writing ? [this.writing] : [this.writing, this.reading]
  }

  private sum(of: (pool: pg.Pool) => number): number {
    return this.both().reduce((all, pool) => all + of(pool), 0)
  }

  /** @throws when none is free within the time that the settings give */
  connect(): Promise<pg.PoolClient> {
    return (asked.getStore() ? this.reading : this.writing).connect()
  }

  onConnect(made: (client: pg.PoolClient) => void): void {
    for (const pool of this.both()) pool.on('connect', made)
  }

  get ended(): boolean {
    return this.both().every(pool => pool.ended)
  }

  /** Connections in use and not, and how many wait for one. */
  get count(): { readonly busy: number, readonly idle: number, readonly waiting: number } {
    return {
      busy: this.sum(p => p.totalCount - p.idleCount),
      idle: this.sum(p => p.idleCount),
      waiting: this.sum(p => p.waitingCount),
    }
  }

  async end(): Promise<void> {
    await Promise.all(this.both().map(pool => pool.end()))
  }
}
