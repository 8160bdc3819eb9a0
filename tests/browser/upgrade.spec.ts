import pg from 'pg'
import { launch, type Product } from '../product'
import { AGAIN, enterDemo, expect, ownPour, press, test as base } from './workshop'

/** It is upgraded: no other test's product may be. */
const test = base.extend<{ own: Product }>({
  own: async ({}, use) => { // eslint-disable-line no-empty-pattern
    const product = await launch(process.env.TEST_DATABASE_BASE!, { demo: true })
    await use(product)
    await product.kill()
  },
})

/** The database as a version before left it: without the newest kind of record, lists worked out by rules of old. */
async function takeBack(databaseUrl: string): Promise<void> {
  const client = new pg.Client({ connectionString: databaseUrl })
  await client.connect()
  await client.query(`delete from library_item where kind = 'page'`)
  await client.query('alter table library_item drop constraint library_item_kind_check')
  await client.query(`alter table library_item add constraint library_item_kind_check
    check (kind in ('mould', 'bucket', 'bag', 'order', 'job'))`)
  await client.query(`delete from kysely_migration where name = '0022-pages'`)
  await client.query(`update pour_projection set rules = 0, body = '{}'`)
  await client.end()
}
async function migrations(databaseUrl: string): Promise<readonly string[]> {
  const client = new pg.Client({ connectionString: databaseUrl })
  await client.connect()
  const { rows } = await client.query<{ name: string }>('select name from kysely_migration order by name')
  await client.end()
  return rows.map(r => r.name)
}

test('a page that is open through an upgrade tells on, hears on, and says that a newer version is here', async ({ page, context, own }) => {
  test.setTimeout(240_000)
  await enterDemo(page, own)
  await ownPour(page, own, 'Through the upgrade')
  await press(page, 'Weigh water, then powder')
  const at = page.url(), table = await context.newPage()
  await table.goto(`${own.url}/bench`)
  const row = table.getByRole('region', { name: 'In hand' }).getByRole('listitem').filter({ hasText: 'Through the upgrade' })
  await expect(row).toContainText('Weigh water')
  const all = await migrations(own.databaseUrl)
  await own.kill()
  await takeBack(own.databaseUrl)
  // While nothing answers: written down here, and seen in the other tab.
  await press(page, 'Sift the powder in')
  await expect(page.getByText(/kept here \(1\)/)).toBeVisible()
  await expect(row).toContainText('Sift the powder in')
  await own.start('the build after this one')
  expect(await migrations(own.databaseUrl)).toEqual(all)

  const stages = async () => {
    const answer = await page.request.get(`${own.url}/api/pours/${at.split('/').at(-1)}`, AGAIN)
    const { events = [] } = await answer.json() as { events?: { data: { stage?: string } }[] }
    return events.map(e => e.data.stage)
  }
  await expect.poll(stages).toEqual(['ready', 'weigh', 'sift'])
  await press(page, 'Let it soak')
  await expect.poll(stages).toEqual(['ready', 'weigh', 'sift', 'soak'])
  await expect(page.getByText(/last heard|kept here/)).toHaveCount(0)
  // It is opened by hand alone, and everything is where it was.
  await table.getByRole('link', { name: 'Open it' }).click()
  await expect(row).toContainText('Let it soak')
  await page.reload()
  await expect(page.getByRole('heading', { level: 2, name: 'Let it soak' })).toBeVisible()
  await page.goto(`${own.url}/logbook`)
  await expect(page.getByRole('link', { name: /Garden tiles/ }).first()).toBeVisible()
})
