import type { Page } from '@playwright/test'
import pg from 'pg'
import type { Product } from '../product'
import { AGAIN, enterDemo, expect, ownPour, press, test } from './workshop'

/** The product's database is gone, as when it is restarted, until it is let back. */
async function takeAway(demo: Product): Promise<() => Promise<void>> {
  const own = new URL(demo.databaseUrl), name = own.pathname.slice(1)
  own.pathname = '/postgres'
  const outside = new pg.Client({ connectionString: own.href })
  await outside.connect()
  await outside.query(`alter database ${name} allow_connections false`)
  await outside.query('select pg_terminate_backend(pid) from pg_stat_activity where datname = $1', [name])
  return async () => {
    await outside.query(`alter database ${name} allow_connections true`)
    await outside.end()
  }
}

/** The address of a wall display of the demo. */
async function wallOf(page: Page, demo: Product): Promise<string> {
  const answer = await page.request.post(`${demo.url}/api/links`, {
    data: { kind: 'wall', name: 'By the sink' },
    headers: { origin: demo.url },
  })
  return `${demo.url}/wall/${(await answer.json() as { token: string }).token}`
}

test('with the database gone and back, every screen says so meanwhile and catches up by itself; nothing told is lost', async ({ page, browser, demo }) => {
  await enterDemo(page, demo)
  await ownPour(page, demo, 'Without a database')
  const elsewhere = await browser.newContext(), other = await elsewhere.newPage()
  await enterDemo(other, demo)
  await other.goto(page.url())
  await expect(other.getByRole('heading', { level: 2, name: 'Get the moulds and table ready' })).toBeVisible()
  const shelf = await elsewhere.newPage()
  await shelf.goto(`${demo.url}/bench`)
  const row = shelf.getByRole('region', { name: 'In hand' }).getByRole('listitem').filter({ hasText: 'Without a database' })
  await expect(row).toContainText('Get the moulds')
  const wall = await elsewhere.newPage()
  await wall.goto(await wallOf(page, demo))
  const onWall = wall.getByRole('article').filter({ hasText: 'Without a database' })
  await expect(onWall).toContainText('Get the moulds')

  const letBack = await takeAway(demo)
  await press(page, 'Weigh water, then powder')
  await expect(page.getByText(/last heard \d+:\d\d, kept here \(1\)/)).toBeVisible()
  await expect(shelf.getByText(/Last heard \d+:\d\d/)).toBeVisible()
  await expect(wall.getByText(/last heard \d+:\d\d; this is as it was then/)).toBeVisible()
  await letBack()

  await expect(other.getByRole('heading', { level: 2, name: 'Weigh water, then powder' })).toBeVisible()
  await expect(row).toContainText('Weigh water, then powder')
  await expect(onWall).toContainText('Weigh water, then powder')
  for (const p of [page, other, shelf, wall]) await expect(p.getByText(/last heard/i)).toHaveCount(0)
  // And it goes on hearing: what is told now arrives without a hand.
  await press(page, 'Sift the powder in')
  await expect(other.getByRole('heading', { level: 2, name: 'Sift the powder in' })).toBeVisible()
  await expect(row).toContainText('Sift the powder in')
  await elsewhere.close()
})

test('tabs of one browser share what was told at once, also without a network; one stream serves them all', async ({ page, context, demo }) => {
  let streams = 0
  context.on('request', r => streams += r.url().endsWith('/api/live') ? 1 : 0)
  await enterDemo(page, demo)
  await ownPour(page, demo, 'In two tabs')
  await press(page, 'Weigh water, then powder')
  const tab = await context.newPage(), list = await context.newPage()
  await tab.goto(page.url())
  await list.goto(`${demo.url}/bench`)
  const row = list.getByRole('region', { name: 'In hand' }).getByRole('listitem').filter({ hasText: 'In two tabs' })
  await expect(row).toContainText('Weigh water, then powder')
  await expect(tab.getByRole('heading', { level: 2, name: 'Weigh water, then powder' })).toBeVisible()
  const before = streams
  await list.reload()
  await expect(row).toContainText('Weigh water, then powder')
  expect(streams).toBe(before)

  await context.setOffline(true)
  await press(page, 'Sift the powder in')
  await expect(tab.getByRole('heading', { level: 2, name: 'Sift the powder in' })).toBeVisible()
  await expect(row).toContainText('Sift the powder in')
  await press(tab, 'Let it soak')
  await expect(page.getByRole('heading', { level: 2, name: 'Let it soak' })).toBeVisible()
  await context.setOffline(false)
  await expect(page.getByText(/last heard|sending/)).toHaveCount(0)
  await expect(tab.getByText(/last heard|sending/)).toHaveCount(0)
  // The tab that heard for all is closed: another takes its place.
  await page.close()
  await press(tab, 'Stir under the surface')
  await expect(row).toContainText('Stir under the surface')
})

test('a press in a tab that had not heard never makes the pour younger', async ({ page, browser, demo }) => {
  await enterDemo(page, demo)
  await ownPour(page, demo, 'Stale')
  await press(page, 'Weigh water, then powder')
  // It never hears the stream: being offline does not end one that is open.
  const elsewhere = await browser.newContext({ serviceWorkers: 'block' }), stale = await elsewhere.newPage()
  await stale.route('**/api/live', route => route.abort())
  await enterDemo(stale, demo)
  await stale.goto(page.url())
  await expect(stale.getByRole('heading', { level: 2, name: 'Weigh water, then powder' })).toBeVisible()
  await elsewhere.setOffline(true)
  for (const next of ['Sift the powder in', 'Let it soak', 'Stir under the surface']) await press(page, next)
  const wet = () => page.getByText(/since powder met water/).innerText()
  const minute = (await wet()).slice(0, 6)
  await press(stale, 'Sift the powder in')
  await stale.unroute('**/api/live')
  await elsewhere.setOffline(false)
  await expect(stale.getByRole('heading', { level: 2, name: 'Stir under the surface' })).toBeVisible()
  await expect(stale.getByText(/last heard|sending/)).toHaveCount(0)
  await expect(page.getByRole('heading', { level: 2, name: 'Stir under the surface' })).toBeVisible()
  expect((await wet()).slice(0, 6) >= minute).toBe(true)
  // The logbook says what it was.
  await page.goto(page.url().replace('/bench/', '/pour/'))
  await expect(page.getByText('told again')).toBeVisible()
  await elsewhere.close()
})

/** All rows of the product's database as they are now, to be put back in its place; the server stands meanwhile. */
async function backUp(demo: Product): Promise<{ readonly restore: () => Promise<void> }> {
  const own = new URL(demo.databaseUrl), name = own.pathname.slice(1)
  own.pathname = '/postgres'
  const outside = new pg.Client({ connectionString: own.href })
  await outside.connect()
  const copy = async (from: string, to: string) => {
    await demo.kill()
    await outside.query('select pg_terminate_backend(pid) from pg_stat_activity where datname = $1', [from])
    await outside.query(`drop database if exists ${to} with (force)`)
    await outside.query(`create database ${to} template ${from}`)
    await demo.start()
  }
  await copy(name, `${name}_kept`)
  return {
    restore: async () => {
      await copy(`${name}_kept`, name)
      await outside.query(`drop database ${name}_kept`)
      await outside.end()
    },
  }
}

test('a database restored from before gets again what the browser still holds: entries, and a whole pour', async ({ page, demo }) => {
  await enterDemo(page, demo)
  await ownPour(page, demo, 'Before the backup')
  const first = page.url()
  await press(page, 'Weigh water, then powder')
  const { restore } = await backUp(demo)
  await press(page, 'Sift the powder in')
  await press(page, 'Let it soak')
  await ownPour(page, demo, 'After the backup')
  const second = page.url()
  await press(page, 'Weigh water, then powder')
  await expect(page.getByText(/last heard|sending/)).toHaveCount(0)
  await restore()

  const stages = async (at: string) => {
    const answer = await page.request.get(`${demo.url}/api/pours/${at.split('/').at(-1)}`, AGAIN)
    const { events = [] } = await answer.json() as { events?: { data: { stage?: string } }[] }
    return events.map(e => e.data.stage)
  }
  await expect.poll(() => stages(first)).toEqual(['ready', 'weigh', 'sift', 'soak'])
  await expect.poll(() => stages(second)).toEqual(['ready', 'weigh'])
  await expect(page.getByRole('heading', { level: 2, name: 'Weigh water, then powder' })).toBeVisible()
  await press(page, 'Sift the powder in')
  await expect.poll(() => stages(second)).toEqual(['ready', 'weigh', 'sift'])
})
