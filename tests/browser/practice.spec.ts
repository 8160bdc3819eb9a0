import type { Page } from '@playwright/test'
import { expect, expectAccessible, test } from './workshop'

const told = (page: Page) => page.getByRole('region', { name: 'What eyes and hands tell' })
const acts = (page: Page) => page.getByRole('region', { name: 'What hands can do' })
const pace = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click()

test.describe('practice', () => {
  test('by touch: strewn where it is touched, stirred too little, told the one thing, and the other way from there', async ({ browser, demo }) => {
    const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true })
    const page = await context.newPage()
    // Nobody is signed in, and nothing is asked of anybody.
    await page.goto(`${demo.url}/practice`)
    await expectAccessible(page)
    await page.getByRole('link', { name: /^First bowl/ }).tap()
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('First bowl')
    await acts(page).getByRole('button', { name: /^Water in/ }).tap()
    await expect(told(page)).toContainText('Clear water.')
    const bowl = page.getByRole('img', { name: /^The bucket from above/ }), box = (await bowl.boundingBox())!
    for (let i = 0; i < 20; i++) {
      const r = 0.42 * Math.sqrt((i + 0.5) / 20), a = 2.4 * i
      await bowl.tap({ position: { x: box.width * (0.5 + r * Math.cos(a)), y: box.height * (0.5 + r * Math.sin(a)) } })
    }
    await expect(told(page)).not.toContainText('Clear water.')
    await expectAccessible(page)
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
    await pace(page, '× 60')
    await expect(page.getByRole('timer')).toContainText(/^[3-9] min/)
    await pace(page, '× 4')
    await acts(page).getByRole('button', { name: 'Stir', exact: true }).tap()
    await expect(told(page)).toContainText(/Lumps|lump/)
    await acts(page).getByRole('button', { name: 'Stop stirring' }).tap()
    await acts(page).getByRole('button', { name: 'Fill' }).tap()
    for (let i = 0; i < 3; i++) await acts(page).getByRole('button', { name: 'Tap 20 s' }).tap()
    for (let i = 0; i < 3; i++) await acts(page).getByRole('button', { name: 'An hour on' }).tap()
    await expect(told(page)).toContainText(/The mould is/)
    await acts(page).getByRole('button', { name: 'Open it' }).tap()
    await page.getByRole('button', { name: 'What became of it?' }).tap()
    await expect(page.getByText('White specks of dry powder')).toBeVisible()
    await expect(page.getByText('Stir longer: until no lump is felt.').first()).toBeVisible()
    await expectAccessible(page)
    // Back to where it was stirred: all before it stands, and nothing after it.
    const stirred = page.getByRole('listitem').filter({ hasText: 'Stirred' })
    await stirred.getByRole('button', { name: 'From here again' }).tap()
    await expect(acts(page).getByRole('button', { name: 'Stir', exact: true })).toBeVisible()
    await expect(page.getByRole('timer')).not.toContainText('h')
    // The other way, longer stirred: both stand side by side.
    await acts(page).getByRole('button', { name: 'Stir', exact: true }).tap()
    await expect(told(page)).toContainText('A lump or two')
    await pace(page, '× 20')
    await expect(page.getByRole('timer')).toContainText(/^(1\d|[7-9]) min/)
    // A slow machine must not stir it stiff between two taps.
    await pace(page, '× 1')
    await acts(page).getByRole('button', { name: 'Stop stirring' }).tap()
    await acts(page).getByRole('button', { name: 'Fill' }).tap()
    for (let i = 0; i < 3; i++) await acts(page).getByRole('button', { name: 'An hour on' }).tap()
    await acts(page).getByRole('button', { name: 'Open it' }).tap()
    await page.getByRole('button', { name: 'What became of it?' }).tap()
    await expect(page.getByRole('region', { name: 'The time before' })).toContainText('White specks of dry powder')
    await expect(page.getByRole('region', { name: 'This time' })).toBeVisible()
    await expect(page.getByRole('row', { name: /^You, the time before/ })).toBeVisible()
    await expectAccessible(page)
    await context.close()
  })

  test('the course: a lesson, its questions with a reason for each answer, and what was missed comes again', async ({ page, demo }) => {
    await page.goto(`${demo.url}/practice`)
    await page.getByRole('link', { name: 'The course' }).click()
    await expectAccessible(page)
    await page.getByRole('link', { name: /^What can hurt/ }).click()
    await expect(page.getByText('Never a hand, a foot or a face in setting plaster')).toBeVisible()
    await page.getByRole('button', { name: 'Ask me' }).click()
    for (let n = 1; n <= 5; n++) {
      await expect(page.getByText(`${n} of 5`, { exact: true })).toBeVisible()
      await page.getByRole('list').getByRole('button').first().click()
      await expect(page.getByRole('status')).toContainText(/^(Right|Not so)/)
      // The right one says so, and why.
      await expect(page.getByRole('listitem').filter({ hasText: 'Right.' })).toHaveCount(1)
      if (n === 1) await expectAccessible(page)
      await page.getByRole('button', { name: n < 5 ? 'Next' : 'How did it go?' }).click()
    }
    const told = await page.getByText(/\d of 5 right\./).innerText(), right = Number(told.split(' ')[0])
    await page.getByRole('link', { name: 'The course' }).last().click()
    await expect(page.getByRole('link', { name: /^What can hurt/ })).toContainText(`${right} of 11 known`)
    // Kept in this browser, and asked again in its time.
    await page.reload()
    await expect(page.getByRole('link', { name: /^What can hurt/ })).toContainText(`${right} of 11 known`)
    await page.getByRole('button', { name: 'A test of ten' }).click()
    await expect(page.getByText('1 of 10', { exact: true })).toBeVisible()
  })

  test('by keyboard alone, without a network once it is there', async ({ page, demo }) => {
    await page.goto(`${demo.url}/practice/heap`)
    await expect(acts(page).getByRole('button', { name: /^Water in/ })).toBeVisible()
    // The page and the worker that looks at it afterwards are here.
    await expect.poll(() => page.workers().length).toBeGreaterThan(0)
    await page.context().setOffline(true)
    await page.keyboard.press('1')
    await expect(told(page)).toContainText('Clear water.')
    const bowl = page.getByRole('img', { name: /^The bucket from above/ })
    await bowl.focus()
    for (let i = 0; i < 3; i++) await page.keyboard.press('Enter')
    for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowRight')
    for (let i = 0; i < 3; i++) await page.keyboard.press('Enter')
    // A handful where the water is clearest, by its number.
    for (let i = 0; i < 14; i++) await page.keyboard.press('1')
    await page.getByRole('button', { name: '× 60' }).focus()
    await page.keyboard.press('Enter')
    await expect(page.getByRole('timer')).toContainText(/^[2-9] min/)
    await page.keyboard.press('5')
    await expect(acts(page).getByRole('button', { name: 'Stop stirring' })).toBeVisible()
    await expect(told(page)).toContainText(/coats|film|cream|Cream/)
    await page.keyboard.press('1')
    await page.keyboard.press('4')
    await expect(page.getByRole('button', { name: 'What became of it?' })).toBeVisible()
    await page.getByRole('button', { name: 'What became of it?' }).focus()
    await page.keyboard.press('Enter')
    await expect(page.getByRole('heading', { name: 'The minutes' })).toBeVisible()
    await expect(page.getByRole('row', { name: /An expert, in this very bucket/ })).toBeVisible()
  })
})
