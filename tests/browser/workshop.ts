import { randomUUID } from 'node:crypto'
import AxeBuilder from '@axe-core/playwright'
import { test as base, expect, type Locator, type Page } from '@playwright/test'
import { launch, type Product } from '../product'

/** A demo workshop and an empty one, each with its own server, shared by the tests of a worker. */
export const test = base.extend<{ quiet: undefined }, { demo: Product, empty: Product }>({
  demo: [async ({}, use) => { // eslint-disable-line no-empty-pattern
    const product = await launch(process.env.TEST_DATABASE_BASE!, { demo: true })
    await use(product)
    await product.kill()
  }, { scope: 'worker', timeout: 240_000 }],
  empty: [async ({}, use) => { // eslint-disable-line no-empty-pattern
    const product = await launch(process.env.TEST_DATABASE_BASE!, { demo: false })
    await use(product)
    await product.kill()
  }, { scope: 'worker', timeout: 240_000 }],
  // No screen may fault: what reaches the console as an error fails its test, but for the connection that tests cut on
  // purpose.
  quiet: [async ({ page }, use) => {
    const faults: string[] = []
    page.on('pageerror', e => faults.push(e.message))
    page.on(
      'console',
      m => m.type() === 'error' && !/Failed to load resource|ERR_|net::/.test(m.text()) && faults.push(m.text()),
    )
    await use(undefined)
    expect(faults).toEqual([])
  }, { auto: true }],
})
export { expect }

export async function enterDemo(page: Page, demo: Product): Promise<void> {
  await page.goto(`${demo.url}/sign-in`)
  await page.getByRole('button', { name: 'Enter the demo workshop' }).click()
  await expect(page.getByRole('link', { name: 'Shelf', exact: true })).toBeVisible()
}

/**
 * A plan of the test's own, by the demo's lantern bases, so that no test decides what another finds.
 * @returns its id
 */
export async function ownPlan(page: Page, demo: Product, name: string, change: object = {}): Promise<string> {
  const plans = await (await page.request.get(`${demo.url}/api/plans`)).json() as { plan: { name: string } }[],
    id = randomUUID()
  const { plan } = plans.find(p => p.plan.name === 'Six lantern bases')!
  expect(
    (await page.request.put(`${demo.url}/api/plans/${id}`, {
      data: { plan: { ...plan, name, ...change }, revision: 0 },
      headers: { origin: demo.url },
    })).ok(),
  ).toBe(true)
  return id
}

/** One of the ways a mould comes into the library. */
export async function addMould(page: Page, way: string): Promise<void> {
  await page.getByRole('button', { name: 'Add a mould', exact: true }).click()
  await page.getByRole('button', { name: way, exact: true }).click()
}

/** A row of a long list is drawn once the page is turned to it; from its end the page is turned back to its head. */
export async function turnTo(page: Page, row: Locator): Promise<Locator> {
  await expect(async () => {
    if (await row.count() > 0) return
    await page.evaluate(() => {
      const wasAt = scrollY
      scrollBy(0, innerHeight / 2)
      if (scrollY === wasAt) scrollTo(0, 0)
    })
    expect(await row.count()).toBeGreaterThan(0)
  }).toPass()
  return row
}

/** How long a row stands still at least, ms; one that moved away meanwhile is turned to again. */
const STILL_MS = 10_000
/** Presses what stands in a long list, which a fresh answer may lay out anew meanwhile: it is then turned to again. */
export async function turnToAndPress(page: Page, what: Locator): Promise<void> {
  await expect(async () => (await turnTo(page, what)).click({ timeout: STILL_MS })).toPass()
}
/** Presses a button of a row that moves as it is acted on, and may be listed out of sight by then. */
export const clickIn = (page: Page, row: Locator, name: string): Promise<void> =>
  turnToAndPress(page, row.getByRole('button', { name, exact: true }))
/** Opens what a row of a long list links to. */
export const openIn = (page: Page, row: Locator): Promise<void> => turnToAndPress(page, row.getByRole('link'))
/** Sees something in a long list that may be laid out anew meanwhile. */
export async function expectIn(page: Page, row: Locator): Promise<void> {
  await expect(async () =>
    expect((await turnTo(page, row)).first()).toBeVisible({ timeout: STILL_MS }),
  ).toPass()
}

/** Chooses from a list that opens; one that was closed by the end of the one before it is opened again. */
export async function choose(page: Page, from: Locator | string, what: Locator | string | RegExp): Promise<void> {
  const list = typeof from === 'string' ? page.getByRole('combobox', { name: from, exact: true }) : from
  const option = typeof what === 'object' && 'click' in what ? what : page.getByRole('option', { name: what })
  await expect(async () => {
    if (!await option.isVisible()) await list.click({ timeout: STILL_MS })
    await option.click({ timeout: STILL_MS })
  }).toPass()
  // A list takes the focus back as it closes.
  await expect(page.getByRole('listbox')).toHaveCount(0)
}

/** A pour of the test's own, at its first stage on the bench. */
export async function ownPour(page: Page, demo: Product, name: string, change: object = {}): Promise<void> {
  await page.goto(`${demo.url}/plan/${await ownPlan(page, demo, name, change)}`)
  await page.getByRole('button', { name: 'Take to the bench' }).click()
  await expect(page.getByRole('heading', { level: 2, name: 'Get the moulds and table ready' })).toBeVisible()
}

/**
 * A test's own requests are asked again when the connection that they were given had been held by a killed server: no
 * plumbing decides.
 */
export const AGAIN = { maxRetries: 3 } as const

/** Moves the demo's clock on instead of waiting. */
export async function later(page: Page, demo: Product, seconds: number): Promise<void> {
  const answer = await page.request.post(`${demo.url}/api/clock`, {
    data: { jump: seconds },
    headers: { origin: demo.url },
    ...AGAIN,
  })
  expect(answer.ok()).toBe(true)
  // The page hears of it by its stream; ask it to be sure.
  const { now } = await answer.json() as { now: number }
  await expect.poll(() =>
    page.evaluate(async () => (await (await fetch('/api/session')).json() as { clock: { now: number } }).clock.now),
  ).toBeGreaterThanOrEqual(now)
}

/** The shell is in this browser's own store, and the worker that serves it is in charge. */
export async function installed(page: Page): Promise<void> {
  await page.evaluate(() => navigator.serviceWorker.ready)
  await expect.poll(() =>
    page.evaluate(async () =>
      navigator.serviceWorker.controller !== null && (await caches.keys()).some(k => k.startsWith('shell-')),
    ),
  ).toBe(true)
}

/** WCAG 2.2 A and AA as axe can tell; of a page that was looked at already and changed its colours, these alone. */
export async function expectAccessible(page: Page, only?: 'colours'): Promise<void> {
  // A list that is still closing has its own brief faults.
  await expect(page.locator('.p-select-overlay')).toHaveCount(0)
  // Half way through a change of colour no contrast is the one that stays.
  await expect.poll(() => page.evaluate(() => document.getAnimations().filter(
    a => a.playState === 'running' && Number.isFinite(Number(a.effect?.getComputedTiming().endTime)),
  ).length)).toBe(0)
  const tags = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']
  const runOnly = only ? { type: 'rule' as const, values: ['color-contrast'] } : { type: 'tag' as const, values: tags }
  // What is right is not described: that took as long as finding it.
  const { violations } = await axe(page).options({ resultTypes: ['violations'], runOnly }).analyze()
  const found = violations.flatMap(v => v.nodes.map(n => ({
    words: `${v.id}: ${n.target.join(' ')} ${n.failureSummary?.split('\n')[1] ?? ''}`,
    covered: v.id === 'target-size' && n.failureSummary?.includes('partially obscured') && n.target.length === 1
      ? String(n.target[0])
      : undefined,
  })))
  const faults: string[] = []
  for (const { words, covered } of found)
    if (covered === undefined || await staysCovered(page, covered)) faults.push(words)
  expect(faults).toEqual([])
}

/** No page here has a frame of another origin: the report is put together in it, not in an empty page beside it. */
const axe = (page: Page) => new AxeBuilder({ page }).setLegacyMode(true)

/** Half under a bar at the edge of the screen, as it happens to be scrolled, or under something wherever it is. */
async function staysCovered(page: Page, target: string): Promise<boolean> {
  await page.locator(target).evaluate(element => element.scrollIntoView({ block: 'center' }))
  const { violations } = await axe(page).include(target).withRules(['target-size']).analyze()
  return violations.length > 0
}

/** Presses the one big action from the keyboard and waits for the next instruction. */
export async function press(page: Page, instruction: string | RegExp): Promise<void> {
  await expect(page.locator('[data-settled=true]')).toBeVisible()
  await page.locator('body').press('Space')
  await expect(page.getByRole('heading', { level: 2, name: instruction })).toBeVisible()
}

/** At the bench of a pour of one bucket: on, stage by stage, until all is poured. */
export async function pourItAll(page: Page): Promise<void> {
  const head = page.getByRole('heading', { level: 2 }).first()
  await expect(head).toHaveText('Get the moulds and table ready')
  for (let n = 0; n < 8 && await head.innerText() !== 'Clean up while it sets'; n++) {
    const before = await head.innerText()
    await expect(page.locator('[data-settled=true]')).toBeVisible()
    await page.locator('button.go').click()
    await expect(head).not.toHaveText(before)
  }
  await expect(head).toHaveText('Clean up while it sets')
}
