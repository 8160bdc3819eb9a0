import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { sql } from 'kysely'
import { startCluster } from '../bin/cluster.mjs'
import { connect } from '../server/store/open'
import { launch } from '../tests/product'
import { entered, seasons } from './seasons'

/**
 * A logbook of many seasons: `npx tsx --tsconfig tsconfig.tools.json bench/logbook.ts [1000,100000]` fills a new
 * database with invented pours, told through the
 * core like the demo, and times every question of the logbook at the server, with the network's part of a loopback
 * request in it.
 */
const sizes = (process.argv[2] ?? '1000,100000').split(',').map(Number)
const cluster = await startCluster(join(mkdtempSync(join(tmpdir(), 'ripples-')), 'pg'))
const product = await launch(cluster.url(''), { demo: true })
try {
  const { db } = connect(product.databaseUrl),
    { ids, chance: c, word, fill } = await seasons(db),
    headers = await entered(product)
  const ask = async (path: string) => {
    const answer = await fetch(`${product.url}/api/${path}`, { headers })
    if (!answer.ok) throw new Error(`${path}: ${await answer.text()}`)
    return answer
  }
  const time = async (title: string, path: () => string) => {
    const times: number[] = [], shown: number[] = []
    for (let i = 0; i < 60; i++) {
      const at = path(), before = performance.now()
      const answer = await (await ask(at)).text()
      if (i < 10) continue
      times.push(performance.now() - before)
      const { rows } = JSON.parse(answer) as { readonly rows?: readonly unknown[] }
      if (rows) shown.push(rows.length)
    }
    times.sort((a, b) => a - b)
    console.log(
      `  ${title.padEnd(44)} median ${times[25]!.toFixed(1)} ms, 95 % ${times[47]!.toFixed(1)} ms${
        shown.length > 0 ? `; rows shown ${Math.round(shown.reduce((a, b) => a + b) / shown.length)}` : ''
      }`,
    )
  }
  for (const size of sizes) {
    const begun = performance.now()
    await fill(size)
    console.log(`${size} pours (filled in ${Math.round((performance.now() - begun) / 1000)} s)`)
    // As it stands once the database has tidied up after so many rows at once.
    await sql`vacuum analyze`.execute(db)
    const mould = ids.moulds.lantern,
      bag = ids.bags.pottery,
      month = () => `20${20 + Math.floor(6 * c.next())}-${String(1 + Math.floor(12 * c.next())).padStart(2, '0')}`
    await time('list, first page', () => 'logbook/pours')
    const deep = (await (await ask('logbook/pours?to=2021-01')).json() as { next?: string }).next
    await time('list, far down', () => `logbook/pours${deep ? `?after=${deep}` : ''}`)
    await time('filter: a mould', () => `logbook/pours?facts=mould:${mould}`)
    await time(
      'filter: a mould, a bag, waste',
      () => `logbook/pours?facts=mould:${mould}&facts=bag:${bag}&facts=verdict:waste`,
    )
    await time('filter: nothing has it', () => 'logbook/pours?facts=defect:stain')
    await time('filter: a month', () => {
      const m = month()
      return `logbook/pours?from=${m}&to=${m}`
    })
    await time('search: a word few pours have', () => `logbook/pours?find=${word()}`)
    await time('search: a word many pours have', () => 'logbook/pours?find=tile')
    await time(
      'search: two words and a filter',
      () => `logbook/pours?find=base%20${word().slice(0, 2)}&facts=verdict:second`,
    )
    await time('charts: counts by month, mould, bag, defect', () => 'logbook/tallies')
    await time('charts: set times of a bag', () => `logbook/set-times?bag=${bag}`)
    await time('moulds with their uses', () => 'library/mould')
  }
  /** The most memory the server has had since its start, MB. */
  const most = () =>
    Math.round(Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${product.pid()}/status`, 'utf8'))?.[1]) / 1024)
  for (
    const [title, path] of [['whole logbook as a table', 'logbook'], [
      'whole workshop as an archive',
      'archive',
    ]] as const
  ) {
    const before = performance.now(), memory = most()
    let bytes = 0
    for await (const part of (await ask(path)).body as unknown as AsyncIterable<Uint8Array>) {
      bytes += part.length
      // What a minute of it takes says enough of the memory.
      if (performance.now() - before > 60_000) break
    }
    console.log(
      `${title}: ${Math.round(bytes / 1e6)} MB in ${
        ((performance.now() - before) / 1000).toFixed(1)
      } s; the server’s memory had reached ${memory} MB before and ${most()} MB after`,
    )
  }
  await db.destroy()
}
finally {
  await product.kill()
  cluster.stop()
}
