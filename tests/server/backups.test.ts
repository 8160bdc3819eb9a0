import { randomUUID } from 'node:crypto'
import { mkdtempSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { sql } from 'kysely'
import { describe, expect, it } from 'vitest'
import { METRIC } from '~core/units/units'
import { REAL_TIME } from '~contract/clock'
import {
  backups, backUpBeforeUpgrade, isNightlyDue, makeBackup, outlived, restoreBackup,
} from '../../bin/backups.mjs'
import { addSeats, openClass } from '../../server/store/classrooms'
import { epochOf } from '../../server/store/epoch'
import { saveItem } from '../../server/store/library'
import { connect, type Db } from '../../server/store/open'
import { within } from '../../server/store/scope'
import { beginSession } from '../../server/store/sessions'
import { createWithOwner } from '../../server/store/workshops'
import { MOULDS } from '../../demo/saltmarsh'
import { freshDatabase } from './fresh'

/** A backup is one snapshot, read back before it counts; what is put back is what was there, row by row. */

const folder = () => mkdtempSync(join(tmpdir(), 'backups-'))
async function settled(db: Db) {
  const made = await createWithOwner(db, { name: 'Kept', units: METRIC, clock: REAL_TIME, demo: false }, {
    name: 'Owner', email: `${randomUUID()}@example.org`, passwordHash: 'a hash',
  })
  const scope = within(db, made.workshopId)
  await saveItem(scope, 'mould', randomUUID(), MOULDS.lantern, 0)
  const classId = await openClass(scope, db, made.personId, 'Class', 1)
  await addSeats(scope, db, classId, [{ name: 'Mara' }])
  const token = await beginSession(db, made, { device: 'd', place: '' })
  return { scope, token }
}
const count = async (db: Db, table: string) =>
  (await sql<{ n: number }>`select count(*)::int as n from ${sql.table(table)}`.execute(db)).rows[0]!.n

describe('a backup', () => {
  it('holds accounts and records but nothing that opens a session, in files of one’s own', async () => {
    const at = folder(), { db, url, close } = await freshDatabase(), { token } = await settled(db)
    const made = await makeBackup(url, { why: 'by-hand', folder: at, serverKey: 'sealed with this' })
    expect(made.tables).toMatchObject({ account: expect.stringMatching(/^1 /) as string, seat: expect.stringMatching(/^1 /) as string })
    expect(Object.keys(made.tables)).not.toContain('session')
    for (const name of readdirSync(at)) expect([name, statSync(join(at, name)).mode & 0o777]).toEqual([name, 0o600])
    expect(readdirSync(at).some(n => n.endsWith('.part'))).toBe(false)
    expect(readFileSync(made.file).includes(token)).toBe(false)
    await close()
    const former = await restoreBackup(url, made)
    const { db: back, pool } = connect(url)
    expect([await count(back, 'account'), await count(back, 'session'), await count(back, 'library_item')]).toEqual([1, 0, 1])
    await back.destroy()
    expect(pool.ended).toBe(true)
    expect(former).toMatch(/_before_\d+$/)
  })

  it('put back is another epoch, so that browsers read anew and send what they still hold', async () => {
    const at = folder(), { db, url, close } = await freshDatabase()
    await settled(db)
    const before = await epochOf(db), made = await makeBackup(url, { why: 'by-hand', folder: at })
    await settled(db)
    await expect(restoreBackup(url, made)).rejects.toThrow('Stop the server first')
    await close()
    await restoreBackup(url, made)
    const { db: back } = connect(url)
    expect(await epochOf(back)).not.toBe(before)
    expect(await count(back, 'workshop')).toBe(1)
    await back.destroy()
  })

  it('of one moment, whatever is written while it is made', async () => {
    const at = folder(), { db, url, close } = await freshDatabase(), { scope } = await settled(db)
    let writing = true, wrote = 0
    const writer = (async () => {
      for (; writing; wrote++) await saveItem(scope, 'mould', randomUUID(), MOULDS.tile, 0)
    })()
    // Read back against its own paper: rows that were written meanwhile would differ.
    const made = await makeBackup(url, { why: 'nightly', folder: at })
    writing = false
    await writer
    expect(wrote).toBeGreaterThan(0)
    expect(backups(undefined, at).map(b => b.file)).toEqual([made.file])
    await close()
  })

  it('that is not what its paper says is not put back, and what is there stays', async () => {
    const at = folder(), { db, url, close } = await freshDatabase()
    await settled(db)
    const made = await makeBackup(url, { why: 'by-hand', folder: at })
    await close()
    const tables = { ...made.tables, account: '7 1' }
    await expect(restoreBackup(url, { ...made, tables })).rejects.toThrow(/not what was written down of it \(account\)/)
    writeFileSync(made.file, readFileSync(made.file).subarray(0, 5000))
    await expect(restoreBackup(url, made)).rejects.toThrow(/could not be made or read/)
    const { db: still } = connect(url)
    expect(await count(still, 'account')).toBe(1)
    const left = await sql<{ name: string }>`select datname as name from pg_database where datname like ${'nine_ripples_restore%'}`
      .execute(still)
    expect(left.rows).toEqual([])
    await still.destroy()
  })

  it('is made before records are brought up to date, and not where they are new or none', async () => {
    process.env.BACKUPS = folder()
    const old = await freshDatabase('0016-second-wall'), now = await freshDatabase(), newest = '0022-pages'
    await settled(now.db)
    const before = await backUpBeforeUpgrade(old.url, newest, {})
    expect(before).toMatchObject({ why: 'before-upgrade', migration: '0016-second-wall' })
    expect(await backUpBeforeUpgrade(now.url, newest, {})).toBeUndefined()
    expect(await backUpBeforeUpgrade(`${now.url}_never`, newest, {})).toBeUndefined()
    process.env.BACKUPS = 'off'
    await Promise.all([old.close(), now.close()])
  })
})

describe('the nights', () => {
  const night = (day: number, why: 'nightly' | 'by-hand' | 'before-upgrade' = 'nightly') =>
    ({ made: new Date(Date.UTC(2026, 0, day, 3)).toISOString(), why })

  it('keep seven days and four weeks, three upgrades, and all that was made by hand', () => {
    const all = Array.from({ length: 60 }, (_, i) => night(60 - i))
    const gone = new Set(outlived(all)), kept = all.filter(b => !gone.has(b)).map(b => b.made.slice(0, 10))
    // 1 March 2026 is a Sunday: its week and the three before it give their Sundays.
    expect(kept).toEqual([
      '2026-03-01', '2026-02-28', '2026-02-27', '2026-02-26', '2026-02-25', '2026-02-24', '2026-02-23', '2026-02-22',
      '2026-02-15', '2026-02-08',
    ])
    const others = [...Array.from({ length: 5 }, (_, i) => night(50 - i, 'before-upgrade')), night(1, 'by-hand')]
    expect(outlived(others).map(b => b.made.slice(0, 10))).toEqual(['2026-02-16', '2026-02-15'])
  })

  it('are due once a night, also on a machine that slept through it', () => {
    const at = (day: number, hour: number) => new Date(2026, 5, day, hour)
    expect(isNightlyDue(at(10, 2), at(9, 4).toISOString())).toBe(false)
    expect(isNightlyDue(at(10, 4), at(9, 4).toISOString())).toBe(true)
    expect(isNightlyDue(at(10, 22), at(10, 3).toISOString())).toBe(false)
    expect(isNightlyDue(at(10, 9), undefined)).toBe(true)
  })
})
