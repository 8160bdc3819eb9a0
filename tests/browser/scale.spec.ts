import { spawn } from 'node:child_process'
import { enterDemo, expect, expectAccessible, ownPour, test } from './workshop'

/** The stand-in for a scale, as it ships, on the address that the page may talk to. */
const ADDRESS = 'http://127.0.0.1:4795'
const act = (what: object) => fetch(`${ADDRESS}/act`, { method: 'POST', body: JSON.stringify(what) })

test('weighed by a scale that streams and by one pedal alone: tare, water, powder, with the scale going off in the middle', async ({ page, demo }) => {
  const scale = spawn(process.execPath, ['devices/scale.mjs'], { stdio: ['ignore', 'pipe', 'inherit'] })
  try {
    await new Promise(done => scale.stdout.once('data', done))
    await enterDemo(page, demo)
    await ownPour(page, demo, 'By pedal alone')
    const pedal = async () => {
      await expect(page.locator('[data-settled=true]')).toBeVisible()
      await page.locator('body').press('Space')
    }
    await pedal()
    await expect(page.getByRole('heading', { level: 2, name: 'Weigh water, then powder' })).toBeVisible()
    await page.getByRole('button', { name: 'Set up' }).click()
    await page.getByRole('button', { name: /^Scale/ }).click()
    await page.getByRole('button', { name: 'Set up' }).click()
    const go = page.locator('button.go')
    await expect(go).toHaveText('Bucket on the scale: tare')
    const grams = async (what: string) => Number((await page.locator(`.part.${what} .target`).innerText()).replace(/[^\d.]/g, ''))
    const [water, powder] = [await grams('water'), await grams('powder')]

    await act({ put: 640 })
    await expect(page.locator('.scale .net')).toHaveText(/^64\d g$/)
    await pedal()
    await expect(go).toHaveText(/^Pour in .+ of water$/)
    await act({ put: water * 0.5, within: 1 })
    await expect(page.getByText(/^\d+ g more$/)).toBeVisible()
    // Pressed too early it says so; nothing is taken.
    await pedal()
    await expect(page.getByText(/Press again to go on as it is\./)).toBeVisible()
    await act({ put: water * 0.5, within: 1 })
    await expect(page.getByText('That is it')).toBeVisible()
    await expect(go).toHaveText(/^Take .+ g of water$/)
    await expectAccessible(page)
    await pedal()
    await expect(go).toHaveText('Dry bucket on the scale: tare')
    await expect(page.getByLabel('Water went in')).toHaveValue(/ g$/)

    await pedal()
    await expect(go).toHaveText(/^Pour in .+ of powder$/)
    await act({ put: powder - 100, within: 1 })
    await expect(page.getByText(/(99|100|101) g more$/)).toBeVisible()
    // It switches itself off and comes back at nothing; the total goes on.
    await act({ off: true })
    await expect(page.getByText(/^The scale is not heard/)).toBeVisible()
    await act({ on: true })
    await act({ put: 140, within: 1 })
    await expect(page.getByText(/^Over by (39|40|41) g$/)).toBeVisible()
    await pedal()
    await expect(page.getByText(/^That is \d+\. Add \d+ g of water to come back to \d+\.$/)).toBeVisible()
    await expect(go).toHaveText('Start sifting')
    await pedal()
    await expect(page.getByRole('heading', { level: 2, name: 'Sift the powder in' })).toBeVisible()
  }
  finally {
    scale.kill()
  }
})
