import type { Browser, BrowserContext, Page } from '@playwright/test'
import { drawTest } from '../../core/lessons/bank'
import { METRIC } from '../../core/units/units'
import { enterDemo, expect, expectAccessible, ownPlan, test } from './workshop'

/** A class of twenty phones, and the same with no phone at all. */

const card = (page: Page, number: number) => page.getByRole('listitem').filter({ has: page.getByText(String(number), { exact: true }) })

async function openClass(page: Page, at: string, name: string): Promise<string> {
  await page.goto(`${at}/practice`)
  await page.getByRole('link', { name: 'a class' }).click()
  await page.getByLabel('Name of the class').fill(name)
  await page.getByRole('button', { name: 'Open it and show the code' }).click()
  await expect(page.getByRole('heading', { level: 1, name })).toBeVisible()
  return (await page.getByRole('link', { name: 'The code, on the big screen' }).locator('.num').innerText()).trim()
}
/** Nobody is signed in on a phone, and two may have one name. */
async function phone(browser: Browser, at: string, code: string, name: string): Promise<Page> {
  const context: BrowserContext = await browser.newContext({ viewport: { width: 390, height: 780 }, baseURL: at })
  const page = await context.newPage()
  await page.goto(`/join?code=${code.replace(' ', '')}`)
  await page.getByLabel('Your first name').fill(name)
  await page.getByRole('button', { name: 'Take a seat' }).click()
  await expect(page.getByRole('heading', { name: 'You are in' })).toBeVisible()
  return page
}

test.describe('a class', () => {
  test('of twenty phones goes through a bucket, a test and a real kit, and is seen from the front', async ({ browser, page, demo }) => {
    await enterDemo(page, demo)
    await ownPlan(page, demo, 'Hedgehog kit')
    const code = await openClass(page, demo.url, 'Twenty hedgehogs')
    await expectAccessible(page)
    const phones: Page[] = []
    for (let i = 1; i <= 20; i++) phones.push(await phone(browser, demo.url, code, i === 20 ? 'Pupil 1' : `Pupil ${i}`))
    await expect(page.getByRole('heading', { name: '20 seats' })).toBeVisible()
    const [first, second] = phones as [Page, Page]

    await page.getByRole('button', { name: 'Read this' }).click()
    for (const p of phones) await expect(p.getByRole('button', { name: 'Ask me' })).toBeVisible()
    await expect(page.getByRole('listitem').filter({ hasText: 'reads' })).toHaveCount(20)
    // Seventeen go home: twenty buckets at once are more than two cores draw.
    for (const p of phones.slice(3)) await p.context().close()
    await page.getByRole('button', { name: 'Practise this' }).click()
    for (const p of phones.slice(0, 3)) await expect(p.getByRole('heading', { level: 1 })).toHaveText('First bowl')
    await first.getByRole('button', { name: /^Water in/ }).click()
    await first.getByRole('button', { name: /^Strew a handful/ }).click()
    await expect(card(page, 1)).toContainText('sifts')
    await second.getByRole('button', { name: 'I need help' }).click()
    await expect(page.getByRole('listitem').filter({ hasText: 'asks for help' })).toContainText('Pupil 2')
    await expectAccessible(first)
    // Whoever reloads goes on from there; held, nothing is done.
    await first.reload()
    await expect(first.getByRole('button', { name: 'Stir', exact: true })).toBeVisible()
    await page.getByRole('button', { name: 'Hold all practice' }).click()
    await expect(first.getByText('Held by your teacher')).toBeVisible()

    await page.getByRole('button', { name: 'Set the test' }).click()
    await expect(second.getByText('1 of 10', { exact: true })).toBeVisible()
    const seed = await second.evaluate(() =>
      (JSON.parse(localStorage.getItem('seat')!) as { class: { task: { seed: number } } }).class.task.seed)
    for (const q of drawTest(10, seed + 2, METRIC)) {
      await second.getByRole('button', { name: q.answers.find(a => a.right)!.words, exact: true }).click()
      await second.getByRole('button', { name: /^(Next|How did it go)/ }).click()
    }
    await expect(second.getByText('Handed in.')).toBeVisible()
    await expect(card(page, 2)).toContainText('10 of 10 right')

    await page.getByLabel('One kit is').selectOption({ label: 'Hedgehog kit' })
    await page.getByLabel('Colours, in turn').fill('white, slate')
    await page.getByRole('button', { name: 'Pack a kit for each seat' }).click()
    await expect(page.getByText(/^20 × Hedgehog kit/)).toBeVisible()
    await page.getByRole('button', { name: 'Pour the kits' }).click()
    await first.getByRole('button', { name: 'I have it all' }).click()
    // Without a network what is told waits in the phone, and is sent when there is one.
    await first.context().setOffline(true)
    for (let i = 0; i < 5; i++) await first.locator('.kit .plain-button.strong').click()
    await expect(first.getByText('waits here for the network')).toBeVisible()
    await first.context().setOffline(false)
    await expect(first.getByText('waits here for the network')).toHaveCount(0)
    await expect(card(page, 1)).toContainText(/fills|cleans up/)
    await expectAccessible(first)

    await page.getByRole('link', { name: 'The code, on the big screen' }).click()
    await expect(page.getByText('20 seats')).toBeVisible()
    await expectAccessible(page)
    for (const p of phones.slice(0, 3)) await p.context().close()
  })

  test('reads a page of the teacher’s own and is tested on it', async ({ browser, page, demo }) => {
    await enterDemo(page, demo)
    await page.goto(`${demo.url}/classes`)
    await page.getByRole('button', { name: 'Write a page' }).click()
    await page.getByLabel('Name', { exact: true }).fill('Our own bench')
    await page.getByLabel('What it says').fill('Wipe it first.\n\nThen wash your hands.')
    await page.getByRole('button', { name: 'Ask something about it' }).click()
    await page.getByLabel('It asks').fill('What comes first?')
    await expect(page.getByText('One question is not whole yet')).toBeVisible()
    await page.getByLabel('Right').fill('The bench')
    await page.getByLabel('because').first().fill('Crumbs end in the mix.')
    await page.getByLabel('Wrong').fill('The hands')
    await expect(page.getByText('not whole yet')).toHaveCount(0)
    await expectAccessible(page)
    await page.getByRole('link', { name: 'Read it as a pupil does' }).click()
    await expect(page.getByText('Then wash your hands.')).toBeVisible()
    await page.getByRole('button', { name: 'Ask me' }).click()
    await page.getByRole('button', { name: 'The hands' }).click()
    await expect(page.getByText('Right. Crumbs end in the mix.')).toBeVisible()

    const code = await openClass(page, demo.url, 'Our own'), pupil = await phone(browser, demo.url, code, 'Ida')
    await page.getByLabel('A page of your own').selectOption({ label: 'Our own bench' })
    await page.getByRole('button', { name: 'Test them on it' }).click()
    await pupil.getByRole('button', { name: 'The bench' }).click()
    await pupil.getByRole('button', { name: 'How did it go?' }).click()
    await expect(pupil.getByText('Handed in.')).toBeVisible()
    await expect(card(page, 1)).toContainText('1 of 1 right')
    await pupil.context().close()
  })

  test('with no phone at all: named, led through each step together, and entered by name', async ({ page, demo }) => {
    await enterDemo(page, demo)
    await ownPlan(page, demo, 'Led kit')
    await openClass(page, demo.url, 'No phones')
    await page.getByLabel(/^Without a phone/).fill('Nils, Greta')
    await page.getByRole('button', { name: 'Give them seats' }).click()
    await expect(page.getByRole('heading', { name: '2 seats' })).toBeVisible()
    await page.getByLabel('One kit is').selectOption({ label: 'Led kit' })
    await page.getByRole('button', { name: 'Pack a kit for each seat' }).click()
    await page.getByRole('button', { name: 'Begin: all get ready' }).click()
    for (const step of ['weigh', 'sift', 'soak', 'stir']) await page.getByRole('button', { name: new RegExp(`^All: .*${step}`) }).click()
    await page.getByRole('button', { name: /^All: / }).click()
    await page.getByRole('button', { name: /^All: / }).click()
    const row = page.getByRole('row').filter({ hasText: 'Greta' })
    await row.getByRole('link').first().click()
    await expect(page).toHaveURL(/\/piece\//)
    await page.goBack()
    await page.getByRole('button', { name: 'Delete it with all names' }).click()
    await page.getByRole('alertdialog').getByRole('button', { name: 'Delete' }).click()
    await expect(page.getByRole('heading', { level: 1, name: 'Classes' })).toBeVisible()
    await expect(page.getByText('No phones')).toHaveCount(0)
  })
})
