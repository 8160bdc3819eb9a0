import { readFileSync } from 'node:fs'
import AxeBuilder from '@axe-core/playwright'
import ICAL from 'ical.js'
import { enterDemo, expect, later, ownPlan, pourItAll, test, turnTo } from './workshop'

const WCAG = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']
/** A plan is bettered for a few seconds, and longer where the machine is busy. */
const SOON = { timeout: 90_000 }

test.describe('many pieces by a day', () => {
  test('an order that cannot be met says what would help; changed, it can, and is kept', async ({ page, demo }) => {
    await enterDemo(page, demo)
    await page.getByRole('link', { name: 'Plan', exact: true }).first().click()
    const orders = page.getByRole('region', { name: 'Many pieces, by a day' })
    await orders.getByRole('link', { name: /Garden tiles for the open day/ }).click()
    const verdict = page.getByRole('status').filter({ hasText: /pieces|in time|out/ })
    await expect(verdict).toContainText(/of 42 in time; the last is out/, SOON)
    const helps = page.getByRole('region', { name: 'What would help' })
    await expect(helps.getByRole('listitem').first()).toBeVisible(SOON)
    await expect(helps).toContainText('One more mould of Garden tile')
    // Powder that is not there is said before it is missed.
    await expect(page.getByRole('region', { name: 'Powder' })).toContainText(/Buy .* kg before/)
    // The day as a list, for who cannot see it.
    await expect(page.getByRole('listitem').filter({ hasText: /^You: (weigh|sift).*stir and fill/ })).toHaveCount(1)
    const { violations } = await new AxeBuilder({ page }).withTags(WCAG).analyze()
    expect(violations).toEqual([])

    const copies = page.getByRole('textbox', { name: 'Moulds there are: Garden tile' })
    await copies.fill('8')
    await copies.press('Tab')
    await expect(verdict).toContainText(/All 42 \(2 spare\) out/, SOON)
    await expect(page.getByRole('button', { name: /^Least work/ })).toHaveAttribute('aria-pressed', 'true')
    await expect(page.getByText(/saved/).first()).toBeVisible(SOON)
    await page.reload()
    await expect(copies).toHaveValue('8')

    const [table] = await Promise.all([
      page.waitForEvent('download'), page.getByRole('button', { name: 'Table (CSV)' }).click(SOON),
    ])
    const rows = readFileSync(await table.path(), 'utf8').trim().split('\r\n')
    expect(rows[0]).toContain('from,to,person,what')
    expect(rows.filter(r => /,open Garden tile/.test(r)).length).toBe(42)
    const [calendar] = await Promise.all([
      page.waitForEvent('download'), page.getByRole('button', { name: 'Calendar file' }).click(),
    ])
    const events = new ICAL.Component(ICAL.parse(readFileSync(await calendar.path(), 'utf8')) as string)
      .getAllSubcomponents('vevent')
    expect(new Set(events.map(e => e.getFirstPropertyValue('uid'))).size).toBe(events.length)
    expect(events.length).toBeGreaterThan(42)
  })

  test('made from a plan: a day that is over and no hands are said at once, and its first bucket goes to the bench', async ({ page, demo }) => {
    await enterDemo(page, demo)
    await page.goto(`${demo.url}/plan/${await ownPlan(page, demo, 'Bases for the fair')}`)
    await page.getByRole('link', { name: 'Many of these by a day' }).click()
    await expect(page.getByRole('textbox', { name: 'Pieces: Lantern base' })).toHaveValue('10')
    const due = page.getByLabel('All out by'), missing = page.getByRole('heading', { name: 'Still missing' })
    const before = await due.inputValue()
    await due.fill('2020-01-01T12:00')
    await due.dispatchEvent('change')
    await expect(page.getByText('That time is over. Choose when all is to be out.')).toBeVisible()
    await due.fill(before)
    await due.dispatchEvent('change')
    await expect(missing).toBeHidden()
    // Other days stand in the drawing once there is one, under the same names.
    const days = page.getByRole('group', { name: 'Days of person' })
    for (const day of ['Mon', 'Tue', 'Wed', 'Thu', 'Fri']) await days.getByRole('button', { name: day, exact: true }).click()
    await expect(page.getByText('Nobody is there before it is due. Say who works, and when.')).toBeVisible(SOON)
    for (const day of ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'])
      await days.getByRole('button', { name: day, exact: true }).click()
    const order = page.url()
    await page.getByRole('button', { name: 'First bucket to the bench' }).click(SOON)
    await expect(page).toHaveURL(/\/bench\//)
    await expect(page.getByRole('heading', { level: 1 })).toContainText('Bases for the fair')

    // Followed live: what stands in its moulds, what broke and is made again, and the next bucket after it.
    await pourItAll(page)
    await page.goto(order)
    const progress = page.getByRole('status').filter({ hasText: / of 10 out/ })
    await expect(progress).toContainText(/^0 of 10 out, \d in (its mould|their moulds)\.$/)
    await expect(page.getByRole('status').filter({ hasText: /The 10 to come out/ })).toBeVisible(SOON)
    await later(page, demo, 4 * 3600)
    await page.goto(`${demo.url}/shelf`)
    const row = await turnTo(page, page.getByRole('listitem').filter({ hasText: 'Bases for the fair' }).first())
    await row.getByRole('button', { name: /^Opened/ }).click()
    await row.getByRole('button', { name: /^Inspect/ }).click()
    await page.getByRole('button', { name: /^Waste/ }).click()
    // Told is kept: the judgement is put away once it stands in this browser.
    await expect(page.getByRole('button', { name: /^Waste/ })).toHaveCount(0)
    await page.goto(order)
    await expect(progress).toContainText(/^0 of 10 out, 0 in their moulds, \d broken, and made again\.$/)
    await expect(page.getByRole('button', { name: 'Next bucket to the bench' })).toBeVisible(SOON)
  })
})
