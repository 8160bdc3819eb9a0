import { createReadStream, createWriteStream, mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { startCluster } from '../bin/cluster.mjs'
import { openArchive } from '../server/archive/read'
import { connect } from '../server/store/open'
import { launch, type Product } from '../tests/product'
import { cookiesOf, entered, seasons } from './seasons'

/**
 * A large workshop out of one product and into another, empty one: `npx tsx --tsconfig tsconfig.tools.json
 * bench/archive.ts [5000]`. Prints times, sizes and the
 * most memory each server took, and ends with an error unless the second writes the same archive again.
 */
const size = Number(process.argv[2] ?? 5000), folder = mkdtempSync(join(tmpdir(), 'ripples-'))
const cluster = await startCluster(join(folder, 'pg'))
const from = await launch(cluster.url(''), { demo: true }), into = await launch(cluster.url(''), { demo: false })
/** The most memory a server has had since its start, MB. */
const most = (of: Product) =>
  Math.round(Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${of.pid()}/status`, 'utf8'))?.[1]) / 1024)

async function timed<T>(title: string, of: Product, work: () => Promise<T>): Promise<T> {
  const before = most(of), begun = performance.now(), result = await work()
  console.log(
    `  ${title}: ${
      ((performance.now() - begun) / 1000).toFixed(1)
    } s; the server’s memory had reached ${before} MB before and ${most(of)} MB after`,
  )
  return result
}
async function fetched(product: Product, headers: HeadersInit, path: string): Promise<string> {
  const answer = await fetch(`${product.url}/api/archive`, { headers })
  if (!answer.ok) throw new Error(await answer.text())
  await pipeline(Readable.fromWeb(answer.body as never), createWriteStream(path))
  return hashOf(path)
}
async function hashOf(path: string): Promise<string> {
  const archive = await openArchive(path)
  archive.close()
  return archive.manifest.hash
}
try {
  const { db } = connect(from.databaseUrl), { fill } = await seasons(db)
  await fill(size)
  await db.destroy()
  const one = join(folder, 'one.zip'), other = join(folder, 'other.zip')
  console.log(`${size} pours besides the demo’s own`)
  const hash = await timed('written', from, async () => fetched(from, await entered(from), one))
  console.log(`  ${(statSync(one).size / 1e6).toFixed(1)} MB`)
  const owner = await fetch(`${into.url}/api/owner`, {
    method: 'POST',
    headers: { 'origin': into.url, 'content-type': 'application/json' },
    body: JSON.stringify({ workshop: 'New', name: 'O', email: 'o@example.org', password: 'a password of length' }),
  })
  const headers = { origin: into.url, cookie: cookiesOf(owner) }
  await timed('taken in', into, async () => {
    const answer = await fetch(
      `${into.url}/api/archive`,
      {
        method: 'POST',
        headers: { ...headers, 'content-type': 'application/zip' },
        body: Readable.toWeb(createReadStream(one)) as ReadableStream,
        duplex: 'half',
      } as RequestInit,
    )
    const lines = (await answer.text()).trim().split('\n')
    console.log(`  ${answer.status}, progress told ${lines.length - 1} times: ${lines.at(-1)!.slice(0, 200)}`)
  })
  const again = await timed('written again', into, () => fetched(into, headers, other))
  console.log(again === hash ? '  the same' : '  NOT the same')
  process.exitCode = again === hash ? 0 : 1
}
finally {
  await Promise.all([from.kill(), into.kill()])
  cluster.stop()
  rmSync(folder, { recursive: true, force: true })
}
