import pg from 'pg'
import { describe, expect, inject, it } from 'vitest'
import { ask, member, overHttp, owner, product, stage, start, viewer } from './over-http'

/** The database gone and back, under a server that runs. */
overHttp()

describe('the database', () => {
  it('when it is gone the server says so in words, and goes on when it is back', async () => {
    const admin = new pg.Client({ connectionString: `${inject('databaseBase')}postgres` })
    await admin.connect()
    const name = new URL(product.databaseUrl).pathname.slice(1)
    const endAll = () =>
      admin.query('select pg_terminate_backend(pid) from pg_stat_activity where datname = $1', [name])
    await admin.query(`alter database ${name} allow_connections false`)
    await endAll()
    const gone = await ask(product, 'GET', 'plans', { cookie: owner })
    expect(gone.status).toBe(503)
    expect(gone.body.data?.sentence).toMatch(/records cannot be reached/)
    expect(JSON.stringify(gone.body)).not.toContain('pg_')
    await admin.query(`alter database ${name} allow_connections true`)
    await expect.poll(async () => (await ask(product, 'GET', 'plans', { cookie: owner })).status).toBe(200)
    await admin.end()
  })

  it('events sent while it is gone are refused, not half written, and taken when it is back', async () => {
    const made = await start(member)
    const admin = new pg.Client({ connectionString: `${inject('databaseBase')}postgres` })
    await admin.connect()
    const path = `pours/${made.body.id as string}/events`,
      body = { sentAt: Date.now(), events: [stage('weigh'), stage('sift')] }
    const [answer] = await Promise.all([
      ask(product, 'POST', path, { cookie: member, body }),
      admin.query('select pg_terminate_backend(pid) from pg_stat_activity where datname = $1', [
        new URL(product.databaseUrl).pathname.slice(1),
      ]),
    ])
    expect([200, 500, 503]).toContain(answer.status)
    await expect.poll(async () => (await ask(product, 'POST', path, { cookie: member, body })).status).toBe(200)
    const { body: pour } = await ask(product, 'GET', `pours/${made.body.id as string}`, { cookie: viewer })
    expect(pour.events).toHaveLength(3)
    await admin.end()
  })

  it('live streams come back by themselves after it was gone', async () => {
    const hear = async () => {
      const control = new AbortController()
      const stream = await fetch(`${product.url}/api/live`, { headers: { cookie: viewer }, signal: control.signal })
      const reader = stream.body!.pipeThrough(new TextDecoderStream()).getReader()
      let heard = ''
      /** @returns false when the stream ended before. */
      const until = async (word: string) => {
        while (!heard.includes(word)) {
          const { value, done } = await reader.read()
          if (done) return false
          heard += value
        }
        return true
      }
      return { until, close: () => control.abort() }
    }
    const before = await hear()
    expect(await before.until('hello')).toBe(true)
    const admin = new pg.Client({ connectionString: `${inject('databaseBase')}postgres` })
    await admin.connect()
    await admin.query('select pg_terminate_backend(pid) from pg_stat_activity where datname = $1', [
      new URL(product.databaseUrl).pathname.slice(1),
    ])
    // The stream ends with what it listened to, so that browsers come back and catch up; then news flow again.
    expect(await before.until('never said')).toBe(false)
    await expect.poll(async () => (await start(member)).status).toBe(200)
    const after = await hear()
    expect(await after.until('hello')).toBe(true)
    const made = await start(member)
    expect(await after.until(made.body.id as string)).toBe(true)
    after.close()
    await admin.end()
  })
})
