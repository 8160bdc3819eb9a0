import type { BrowserContext, Page } from '@playwright/test'
import type { Product } from '../product'
import { AGAIN, enterDemo, expect, ownPour, test } from './workshop'
import { chance } from '../../demo/random'
import { campaign } from '../campaign'
import { faultyWay, type Faulty } from './faulty'

/** What is done to one pour: about as much as brings it to the shelf. */
const ROUNDS = 20
const { seed, of: rounds } = campaign(400)
type Dice = ReturnType<typeof chance>

/** The one big action, whatever it is now; a press that is passed over, or told twice, is part of it. */
async function pressOn(page: Page): Promise<void> {
  if (await page.locator('[data-settled=true]').isVisible()) await page.locator('body').press('Space')
}

/** Two benches and the logbook's page of one pour, each in a browser of its own. */
async function openAt(contexts: readonly BrowserContext[], url: string, pour: string): Promise<Page[]> {
  return Promise.all(['bench', 'bench', 'pour'].map(async (path, i) => {
    const at = await contexts[i]!.newPage()
    await expect(async () => {
      await at.goto(`${url}/${path}/${pour}`)
      await expect(at.getByText('Behind a bad line').first()).toBeVisible({ timeout: 5000 })
    }).toPass()
    return at
  }))
}

/** @returns the notes that were made */
async function work([one, two, book]: readonly Page[], dice: Dice): Promise<string[]> {
  const notes: string[] = []
  for (let i = 0; i < ROUNDS; i++) {
    const what = dice.next()
    if (what < 0.3) await pressOn(one!)
    else if (what < 0.6) await pressOn(two!)
    else {
      const words = `note ${i}`
      await book!.getByLabel('Add a note').fill(words)
      await book!.getByRole('button', { name: 'Note it' }).click()
      notes.push(words)
    }
  }
  return notes
}

/** Everything is told once, nothing waits, and all say the same of it as a page that has only now been opened. */
async function expectAgreement(
  page: Page,
  demo: Product,
  pour: string,
  pages: readonly Page[],
  notes: readonly string[],
): Promise<void> {
  const told = async () => {
    const answer = await page.request.get(`${demo.url}/api/pours/${pour}`, AGAIN)
    return (await answer.json() as { events: { id: string, data: { text?: string } }[] }).events
  }
  await expect.poll(async () => (await told()).flatMap(e => e.data.text ?? []).sort()).toEqual([...notes].sort())
  for (const at of pages) {
    await expect(at.getByText(/last heard|sending|kept here/i)).toHaveCount(0)
    await expect(at.getByText(/not taken/)).toHaveCount(0)
  }
  const events = await told()
  expect(new Set(events.map(e => e.id)).size).toBe(events.length)
  // Each device may have another batch in hand, or have gone on to the shelf; how far each batch is, all say alike.
  await page.goto(`${demo.url}/bench/${pour}`)
  const batches = (at: Page) => at.getByRole('group', { name: 'Buckets of this pour' }).getByRole('button')
  await expect(batches(page)).toHaveCount(2)
  const far = await batches(page).allInnerTexts()
  for (const at of pages.filter(p => p.url().includes('/bench/')))
    await expect.poll(() => batches(at).allInnerTexts()).toEqual(far)
  for (const words of notes) await expect(pages[2]!.getByText(`“${words}”`, { exact: false }).first()).toBeVisible()
}

async function oneLot(page: Page, demo: Product, way: Faulty, contexts: readonly BrowserContext[], dice: Dice) {
  await ownPour(page, demo, 'Behind a bad line')
  const pour = page.url().split('/').at(-1)!
  way.calm(false)
  const pages = await openAt(contexts, way.url, pour), notes = await work(pages, dice)
  way.calm(true)
  await expectAgreement(page, demo, pour, pages, notes)
  for (const at of pages) await at.close()
}

test(`two benches and a logbook behind a way that loses, doubles, delays and mixes up: all agree, nothing is lost (seed ${seed})`, async ({ page, browser, demo }) => {
  test.setTimeout(600_000 + rounds * 15_000)
  const dice = chance(seed), way = await faultyWay(demo.url, seed), contexts: BrowserContext[] = []
  await enterDemo(page, demo)
  for (let i = 0; i < 3; i++) {
    const context = await browser.newContext({ serviceWorkers: 'block' })
    // Coming in is not what is tried here: it is done by the good way.
    await context.addCookies((await page.context().cookies()).map(c => ({ ...c, domain: '127.0.0.1', path: '/' })))
    contexts.push(context)
  }
  for (let done = 0; done < rounds; done += ROUNDS) await oneLot(page, demo, way, contexts, dice)
  expect(Object.values(way.count).reduce((a, b) => a + b)).toBeGreaterThan(5)
  for (const context of contexts) await context.close()
  await way.close()
})
