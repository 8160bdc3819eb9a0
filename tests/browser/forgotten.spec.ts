import { launch } from '../product'
import { enterDemo, expect, expectAccessible, later, ownPour, press, test } from './workshop'

test('a pour of which nothing was told for a day is asked about, and closed as poured or given up', async ({ page }) => {
  // A day passes: in a workshop of its own.
  const own = await launch(process.env.TEST_DATABASE_BASE!, { demo: true })
  await enterDemo(page, own)
  for (const name of ['Left in the soak', 'Never begun']) {
    await ownPour(page, own, name)
    if (name === 'Never begun') continue
    for (const next of ['Weigh water, then powder', 'Sift the powder in', 'Let it soak']) await press(page, next)
  }
  await later(page, own, 25 * 3600)
  await page.goto(own.url)
  const asked = page.getByRole('region', { name: 'Still at the bench?' })
  await expect(asked.getByRole('listitem')).toHaveCount(2)
  await expect(page.getByRole('region', { name: 'Now' }).getByText('Left in the soak')).toHaveCount(0)
  await expectAccessible(page)
  await asked.getByRole('button', { name: 'Close Never begun' }).click()
  await page.getByRole('button', { name: 'Nothing came of it' }).click()
  await asked.getByRole('button', { name: 'Close Left in the soak' }).click()
  await expect(page.getByRole('dialog', { name: 'Left in the soak' })).toBeVisible()
  await expectAccessible(page)
  await page.getByRole('button', { name: 'It was poured' }).click()
  await expect(asked).toHaveCount(0)
  await page.getByRole('link', { name: 'Shelf', exact: true }).click()
  await expect(page.getByRole('listitem').filter({ hasText: 'Left in the soak' }).first()).toContainText('Open')
  await expect(page.getByRole('listitem').filter({ hasText: 'Never begun' })).toHaveCount(0)
  await own.kill()
})
