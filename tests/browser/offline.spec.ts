import type { BrowserContext, Page } from '@playwright/test'
import type { Product } from '../product'
import { AGAIN, enterDemo, expect, expectIn, installed, later, ownPlan, ownPour, press, test } from './workshop'

async function startPour(page: Page, demo: Product, name: string): Promise<string> {
  await ownPour(page, demo, name)
  return page.url()
}
interface Taken {
  id: string
  kind: string
  data: { sign?: string, stage?: string }
  happenedAt: number
  device: string
  deviceSeq: number
}
/** What the server has of a pour; nothing while it has not heard of it. */
async function events(context: BrowserContext, url: string, pour: string): Promise<Taken[]> {
  const answer = await context.request.get(`${url}/api/pours/${pour.split('/').at(-1)}`, AGAIN)
  return answer.ok() ? (await answer.json() as { events: Taken[] }).events : []
}

test('once a pour was opened everything works without a network: reload, screens never visited, marks and the forecast; each entry arrives once', async ({ page, context, demo }) => {
  await enterDemo(page, demo)
  const at = await startPour(page, demo, 'Cut off')
  await installed(page)
  await press(page, /Weigh|Measure|Count/)
  await press(page, /Sift|All the powder/)
  await later(page, demo, 480)
  await context.setOffline(true)
  await press(page, /soak|wet through/)
  await press(page, /Stir/)
  await expect(page.getByText(/last heard \d+:\d\d, kept here \(2\)/)).toBeVisible()

  // A reload in mid-run, without any network.
  await page.reload()
  await expect(page.getByRole('heading', { level: 2, name: /Stir/ })).toBeVisible()
  await expect(page.getByText(/last heard \d+:\d\d, kept here \(2\)/)).toBeVisible()
  await press(page, /pour/)
  await press(page, /Clean up/)
  await page.getByRole('button', { name: 'Webbing' }).click()
  await expect(page.getByRole('button', { name: 'Webbing ✓' })).toBeVisible()
  // The forecast runs here: it is told, and what it foresees is an entry like any other.
  await expect(page.getByText(/last heard \d+:\d\d, kept here \(6\)/)).toBeVisible()

  // Screens that were never opened in this browser.
  await page.getByRole('link', { name: 'Leave' }).click()
  for (
    const [link, heading] of [['Shelf', 'Shelf'], ['Logbook', 'Logbook'], ['Moulds', 'Moulds'], ['Lab', 'Lab']] as const
  ) {
    await page.getByRole('link', { name: link, exact: true }).click()
    await expect(page.getByRole('heading', { level: 1, name: heading })).toBeVisible()
  }
  await page.goto(`${demo.url}/shelf`)
  await expect(page.getByText(/No connection to the workshop’s server/)).toBeVisible()
  await page.goto(at)
  await expect(page.getByRole('button', { name: 'Webbing ✓' })).toBeVisible()

  await context.setOffline(false)
  await expect(page.getByText(/last heard|sending|no connection/i)).toHaveCount(0)
  const taken = await events(context, demo.url, at)
  expect(taken.map(e => e.data.stage ?? e.data.sign ?? e.kind)).toEqual([
    'ready',
    'weigh',
    'sift',
    'soak',
    'stir',
    'fill',
    'clean-up',
    'webbing',
    'foreseen',
  ])
  expect(new Set(taken.map(e => e.id)).size).toBe(taken.length)
})

test('a pour begins without a network, goes to the shelf, outlasts the browser’s tab, and arrives whole', async ({ page, context, demo }) => {
  await enterDemo(page, demo)
  const plan = await ownPlan(page, demo, 'Begun in the field')
  await page.goto(`${demo.url}/plan/${plan}`)
  await expect(page.getByRole('button', { name: 'Take to the bench' })).toBeVisible()
  await installed(page)
  await context.setOffline(true)
  await page.getByRole('button', { name: 'Take to the bench' }).click()
  for (
    const next of [
      'Get the moulds and table ready', 'Weigh water, then powder', 'Sift the powder in', 'Let it soak',
      'Stir under the surface', 'Tap the bucket, then pour', 'Clean up while it sets',
    ]
  ) {
    if (next !== 'Get the moulds and table ready') await press(page, next)
    await expect(page.getByRole('heading', { level: 2, name: next })).toBeVisible()
  }
  const pour = page.url()
  await page.close()

  const again = await context.newPage()
  await again.goto(`${demo.url}/bench`)
  const row = again.getByRole('region', { name: 'In hand' }).getByRole('listitem').filter({ hasText: 'Begun in the field' })
  await expect(row).toContainText('Clean up while it sets')
  await again.goto(`${demo.url}/shelf`)
  await expectIn(again, again.getByRole('listitem').filter({ hasText: 'Begun in the field' }))
  await expect(again.getByText(/no connection/i)).toBeVisible()
  await context.setOffline(false)
  await expect(again.getByText(/last heard|sending|no connection/i)).toHaveCount(0)
  // The Shelf tells of the connection, not of each entry on its way.
  const stages = async () => (await events(context, demo.url, pour)).map(e => e.data.stage)
  await expect.poll(stages).toEqual(['ready', 'weigh', 'sift', 'soak', 'stir', 'fill', 'clean-up'])
  const taken = await events(context, demo.url, pour)
  expect(taken.map(e => e.deviceSeq)).toEqual([...taken.map(e => e.deviceSeq)].sort((a, b) => a - b))
})

test('two people at one pour, one of them cut off: both end with the same record, and with the server killed and the database gone in between nothing is lost', async ({ page, context, browser, demo }) => {
  await enterDemo(page, demo)
  const at = await startPour(page, demo, 'Two at one')
  const elsewhere = await browser.newContext(), other = await elsewhere.newPage()
  await enterDemo(other, demo)
  await other.goto(at)
  await installed(page)
  await press(page, /Weigh|Measure|Count/)
  await expect(other.getByRole('heading', { level: 2, name: /Weigh|Measure|Count/ })).toBeVisible()

  await context.setOffline(true)
  await press(page, /Sift|All the powder/)
  // Meanwhile the other does the same, and more; the first one's entry arrives late.
  await press(other, /Sift|All the powder/)
  await press(other, /soak|wet through/)
  await demo.kill()
  await press(other, /Stir/)
  await expect(other.getByText(/last heard \d+:\d\d, kept here/)).toBeVisible()
  await demo.start()
  await context.setOffline(false)
  for (const p of [page, other]) {
    await expect(p.getByText(/last heard|sending|no connection/i)).toHaveCount(0)
    await expect(p.getByRole('heading', { level: 2, name: /Stir/ })).toBeVisible()
  }
  const taken = await events(context, demo.url, at)
  expect(taken.filter(e => e.data.stage === 'sift')).toHaveLength(2)
  expect(taken.filter(e => e.data.stage === 'stir')).toHaveLength(1)
  // In the order of each device, whatever came when.
  for (const device of new Set(taken.map(e => e.device))) {
    const own = taken.filter(e => e.device === device)
    expect(own.map(e => e.deviceSeq)).toEqual([...own.map(e => e.deviceSeq)].sort((a, b) => a - b))
  }
  const wet = (p: Page) => p.getByText(/since powder met water/).innerText()
  expect((await wet(page)).slice(0, 8)).toBe((await wet(other)).slice(0, 8))
  await elsewhere.close()
})

test('whoever signs out leaves none of their answers behind, but what was not sent yet', async ({ page, context, demo }) => {
  await enterDemo(page, demo)
  await startPour(page, demo, 'Left behind')
  await installed(page)
  await page.goto(`${demo.url}/account`)
  await page.getByRole('button', { name: 'Sign out' }).click()
  await expect(page.getByRole('button', { name: 'Enter the demo workshop' })).toBeVisible()
  const kept = await page.evaluate(() => new Promise<string[]>((resolve) => {
    const asked = indexedDB.open('nine-ripples-answers')
    asked.onsuccess = () => {
      const keys = asked.result.transaction('answers').objectStore('answers').getAllKeys()
      keys.onsuccess = () => resolve((keys.result as [string, string][]).map(([who]) => who))
    }
  }))
  expect(kept.filter(who => who !== '')).toEqual([])
  await context.setOffline(true)
  await page.goto(`${demo.url}/shelf`)
  await expect(page.getByRole('heading', { name: 'Shelf' })).toHaveCount(0)
})
