import { randomUUID } from 'node:crypto'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { startCluster } from '../bin/cluster.mjs'
import { makeBackup, restoreBackup, sizeWords } from '../bin/backups.mjs'
import { connect } from '../server/store/open'
import { launch } from '../tests/product'
import { entered, seasons } from './seasons'

/**
 * A backup of many pours, read back and compared, while somebody else's entries are taken; then the same put back.
 * `npx tsx --tsconfig tsconfig.tools.json bench/backup.ts [100000]`
 */
const size = Number(process.argv[2] ?? 100_000)
const cluster = await startCluster(join(mkdtempSync(join(tmpdir(), 'ripples-')), 'pg'))
const product = await launch(cluster.url(''), { demo: true }), folder = mkdtempSync(join(tmpdir(), 'ripples-backup-'))
const quantile = (list: readonly number[], p: number) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(p * list.length))] ?? 0
const seconds = (since: number) => `${((performance.now() - since) / 1000).toFixed(0)} s`

/** Entries of a new pour, one after the other, as a bench tells them. @returns how long each took, ms */
async function entriesUntil(headers: Record<string, string>, over: () => boolean): Promise<number[]> {
  const ask = async (path: string, body?: object) => (await fetch(`${product.url}/api/${path}`, {
    headers: { ...headers, 'content-type': 'application/json' }, ...body && { method: 'POST', body: JSON.stringify(body) },
  })).json() as Promise<Record<string, unknown>>
  const session = await ask('session') as { clock: { now: number } }, id = randomUUID()
  const [{ plan }] = await ask('plans') as unknown as [{ plan: object }]
  await ask('pours', {
    id, plan, startedAt: session.clock.now, device: 'bench', deviceSeq: 0, eventId: randomUUID(),
  })
  const times: number[] = []
  while (!over()) {
    const happenedAt = session.clock.now + times.length, before = performance.now()
    const event = {
      id: randomUUID(), kind: 'note', data: { text: 'beside' }, version: 2, happenedAt, recordedAt: happenedAt, device: 'bench',
      deviceSeq: times.length + 1,
    }
    await ask(`pours/${id}/events`, { sentAt: happenedAt, after: times.length, events: [event] })
    times.push(performance.now() - before)
    await new Promise(done => setTimeout(done, 20))
  }
  return times
}
const told = (times: readonly number[]) =>
  `${times.length} entries, median ${quantile(times, 0.5).toFixed(1)} ms, 95 % ${quantile(times, 0.95).toFixed(1)} ms`

try {
  const { db } = connect(product.databaseUrl), { fill } = await seasons(db), headers = await entered(product)
  const filling = performance.now()
  await fill(size)
  await db.destroy()
  console.log(`${size} pours, filled in ${seconds(filling)}`)
  let over = false
  const quietUntil = performance.now() + 5000
  console.log(`alone: ${told(await entriesUntil(headers, () => performance.now() > quietUntil))}`)
  const beside = entriesUntil(headers, () => over), begun = performance.now()
  const backup = await makeBackup(product.databaseUrl, { why: 'by-hand', folder })
  console.log(`backup made, read back and compared in ${seconds(begun)}, ${sizeWords(backup.bytes)}`)
  over = true
  console.log(`beside it: ${told(await beside)}`)
  await product.kill()
  const putting = performance.now()
  await restoreBackup(product.databaseUrl, backup)
  console.log(`put back in ${seconds(putting)}`)
}
finally {
  await product.kill()
  cluster.stop()
  rmSync(folder, { recursive: true, force: true })
}
