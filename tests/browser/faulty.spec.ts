import type { BrowserContext, Page } from '@playwright/test'
import { AGAIN, enterDemo, expect, ownPour, test } from './workshop'
import { chance } from '../../demo/random'
import { campaign } from '../server/campaign'
import { faultyWay } from './faulty'

/** The one big action, whatever it is now; a press that is passed over, or told twice, is part of it. */
async function pressOn(page: Page): Promise<void> {
  if (await page.locator('[data-settled=true]').isVisible()) await page.locator('body').press('Space')
}

const { seed, of: rounds } = campaign(400)

test(`two benches and a logbook behind a way that loses, doubles, delays and mixes up: all agree, nothing is lost (seed ${seed})`, async ({ page, browser, demo }) => {
  test.setTimeout(600_000 + rounds * 10_000)
  const dice = chance(seed), way = await faultyWay(demo.url, seed), through = { ...demo, url: way.url }
  await enterDemo(page, demo)
  await ownPour(page, demo, 'Behind a bad line')
  const pour = page.url().split('/').at(-1)!
  const contexts: BrowserContext[] = [], pages: Page[] = []
  for (const path of ['bench', 'bench', 'pour']) {
    const context = await browser.newContext({ serviceWorkers: 'block' }), at = await context.newPage()
    // Coming in is not what is tried here: it is done by the good way.
    await context.addCookies((await page.context().cookies()).map(c => ({ ...c, domain: '127.0.0.1', path: '/' })))
    await expect(async () => {
      await at.goto(`${through.url}/${path}/${pour}`)
      await expect(at.getByText('Behind a bad line').first()).toBeVisible({ timeout: 5000 })
    }).toPass()
    contexts.push(context)
    pages.push(at)
  }
  const [one, two, book] = pages as [Page, Page, Page], notes: string[] = []
  for (let i = 0; i < rounds; i++) {
    const what = dice.next()
    if (what < 0.3) await pressOn(one)
    else if (what < 0.6) await pressOn(two)
    else {
      const words = `note ${i}`
      await book.getByLabel('Add a note').fill(words)
      await book.getByRole('button', { name: 'Note it' }).click()
      notes.push(words)
    }
  }
  way.calm()
  expect(Object.values(way.count).reduce((a, b) => a + b)).toBeGreaterThan(5)

  const told = async () => {
    const answer = await page.request.get(`${demo.url}/api/pours/${pour}`, AGAIN)
    return (await answer.json() as { events: { id: string, data: { text?: string } }[] }).events
  }
  await expect.poll(async () => (await told()).flatMap(e => e.data.text ?? []).sort())
    .toEqual([...notes].sort())
  for (const at of pages) {
    await expect(at.getByText(/last heard|sending|kept here/i)).toHaveCount(0)
    await expect(at.getByText(/not taken/)).toHaveCount(0)
  }
  const events = await told()
  expect(new Set(events.map(e => e.id)).size).toBe(events.length)
  // Each device may have another batch in hand; how far each batch is, all three say alike.
  await page.goto(`${demo.url}/bench/${pour}`)
  const batches = (at: Page) => at.getByRole('group', { name: 'Batches of this pour' }).getByRole('button')
  await expect(batches(page)).toHaveCount(2)
  const far = await batches(page).allInnerTexts()
  for (const at of [one, two]) await expect.poll(() => batches(at).allInnerTexts()).toEqual(far)
  for (const words of notes) await expect(book.getByText(`“${words}”`, { exact: false }).first()).toBeVisible()
  for (const context of contexts) await context.close()
  await way.close()
})
