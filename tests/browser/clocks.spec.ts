import { randomUUID } from 'node:crypto'
import type { Page } from '@playwright/test'
import { chance } from '../../demo/random'
import { BUCKETS, makeIds, MOULDS, planOf, WISHES } from '../../demo/saltmarsh'
import { launch, type Product } from '../product'
import { AGAIN, expect, press, test } from './workshop'

// The demo's clock can be moved by hand, and corrects nothing: this needs a workshop in real time.
test.use({ serviceWorkers: 'block' })
const HOUR = 3_600_000

/** A workshop of its own with one plan at the bench. @returns the address of the pour */
async function workshop(product: Product, page: Page): Promise<string> {
  const ids = makeIds(chance(5)), headers = { origin: product.url }, api = `${product.url}/api`
  const owner = { workshop: 'Real time', name: 'R', email: 'r@example.org', password: 'a long enough word' }
  await page.request.post(`${api}/owner`, { data: owner, headers })
  await page.request.put(`${api}/library/mould/${ids.moulds.lantern}`, { data: { body: MOULDS.lantern, revision: 0 }, headers })
  await page.request.put(`${api}/library/bucket/${ids.buckets.bowl}`, { data: { body: BUCKETS.bowl, revision: 0 }, headers })
  const id = randomUUID(), plan = { ...planOf(ids, WISHES.lanterns), bag: undefined }
  const started = await page.request.post(`${api}/pours`, {
    data: { id, plan, startedAt: Date.now(), eventId: randomUUID(), device: 'test', deviceSeq: 1 },
    headers,
  })
  expect(started.ok()).toBe(true)
  return `${product.url}/bench/${id}`
}

test('a phone whose clock is set back an hour while it hears nobody: what it told is where it was, and a laptop agrees', async ({ page, browser }) => {
  const product = await launch(process.env.TEST_DATABASE_BASE!, { demo: false })
  // The device's wall clock, which its owner may set; its other clock runs on.
  await page.addInitScript(() => {
    const Real = Date
    const now = () => Real.now() + ((globalThis as { setBy?: number }).setBy ?? 0)
    globalThis.Date = class extends Real {
      constructor(...given: [number]) {
        super(...(given.length > 0 ? given : [now()] as [number]))
      }

      static override now = now
    } as DateConstructor
  })
  const at = await workshop(product, page), began = Date.now()
  await page.goto(at)
  await press(page, 'Weigh water, then powder')
  const elsewhere = await browser.newContext({ storageState: await page.context().storageState(), serviceWorkers: 'block' })
  const laptop = await elsewhere.newPage()
  await laptop.goto(at)
  await expect(laptop.getByRole('heading', { level: 2, name: 'Weigh water, then powder' })).toBeVisible()

  await page.context().setOffline(true)
  await page.evaluate(by => Object.assign(globalThis, { setBy: -by }), HOUR)
  for (const next of ['Sift the powder in', 'Let it soak']) await press(page, next)
  await page.context().setOffline(false)
  await expect(laptop.getByRole('heading', { level: 2, name: 'Let it soak' })).toBeVisible()
  const { events } = await (await page.request.get(at.replace('/bench/', '/api/pours/'), AGAIN)).json() as {
    events: { data: { stage?: string }, happenedAt: number, doubt?: number }[]
  }
  expect(events.map(e => e.data.stage)).toEqual(['ready', 'weigh', 'sift', 'soak'])
  for (const { happenedAt } of events) {
    expect(happenedAt).toBeGreaterThan(began - 10_000)
    expect(happenedAt).toBeLessThan(Date.now() + 10_000)
  }
  await expect(page.getByText(/last heard|sending/)).toHaveCount(0)
  await expect(page.getByRole('heading', { level: 2, name: 'Let it soak' })).toBeVisible()
  await elsewhere.close()
  await product.kill()
})
