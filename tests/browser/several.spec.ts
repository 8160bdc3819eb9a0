import { launch } from '../product'
import type { Page } from '@playwright/test'
import { choose, enterDemo, expect, expectAccessible, later, ownPlan, ownPour, press, test } from './workshop'

async function toBench(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Take to the bench' }).click()
  await expect(page.getByRole('heading', { level: 2, name: 'Get the moulds and table ready' })).toBeVisible()
}

test('two batches overlap: one is sifted while the other soaks, each has its own place, and going back in one leaves the other', async ({ page }) => {
  // Whether they can overlap goes by the workshop's pace: in one of its own, which no other test has taught any.
  const demo = await launch(process.env.TEST_DATABASE_BASE!, { demo: true })
  await enterDemo(page, demo)
  await page.goto(`${demo.url}/plan/${await ownPlan(page, demo, 'One beside the other', { soakMinutes: 6 })}`)
  await expect(page.getByText(/Alone: sift the next bucket while one soaks/)).toBeVisible()
  await toBench(page)
  await press(page, 'Weigh water, then powder')
  await press(page, 'Sift the powder in')
  await expect(page.getByText(/Two of you: the second begins bucket 2/)).toBeVisible()
  await later(page, demo, 90)
  await press(page, 'Let it soak')
  await expect(page.getByText(/While it soaks: sift bucket 2\./)).toBeVisible()
  await expectAccessible(page)
  await page.getByRole('button', { name: 'Begin bucket 2' }).click()
  await expect(page.getByRole('heading', { level: 2, name: 'Weigh water, then powder' })).toBeVisible()
  await press(page, 'Sift the powder in')
  await page.getByRole('button', { name: /^Bucket 1/ }).click()
  await expect(page.getByRole('heading', { level: 2, name: 'Let it soak' })).toBeVisible()
  await later(page, demo, 240)
  for (const next of ['Stir under the surface', 'Tap the bucket, then pour', 'Clean up while it sets'])
    await press(page, next)
  // Its bucket clean, the hands go to the batch that is under way.
  await press(page, 'Sift the powder in')
  await expect(page.getByRole('button', { name: /^Bucket 2/ })).toHaveAttribute('aria-pressed', 'true')
  await press(page, 'Let it soak')
  await page.getByRole('button', { name: /^Back/ }).press('Enter')
  await expect(page.getByRole('heading', { level: 2, name: 'Sift the powder in' })).toBeVisible()
  await expect(page.getByRole('button', { name: /^Bucket 1/ })).toContainText('clean-up')
  await demo.kill()
})

test('two people at one pour, each with a batch in hand', async ({ page, browser, demo }) => {
  await enterDemo(page, demo)
  await ownPour(page, demo, 'Four hands')
  const elsewhere = await browser.newContext(), other = await elsewhere.newPage()
  await enterDemo(other, demo)
  await other.goto(page.url())
  await press(page, 'Weigh water, then powder')
  await press(page, 'Sift the powder in')
  await other.getByRole('button', { name: 'Begin bucket 2' }).click()
  await expect(other.getByRole('heading', { level: 2, name: 'Weigh water, then powder' })).toBeVisible()
  // The first one's screen stays with its own batch, and shows where the other is.
  await expect(page.getByRole('button', { name: /^Bucket 2/ })).toContainText('weigh')
  await expect(page.getByRole('heading', { level: 2, name: 'Sift the powder in' })).toBeVisible()
  await press(page, 'Let it soak')
  await expect(other.getByRole('button', { name: /^Bucket 1/ })).toContainText('soak')
  await press(other, 'Sift the powder in')
  await expect(page.getByRole('heading', { level: 2, name: 'Let it soak' })).toBeVisible()
  await elsewhere.close()
})

test('a shell in coats: a thickness map says how much, and the bench when the next coat goes on, and what to do when it is late', async ({ page, demo }) => {
  await enterDemo(page, demo)
  const shell = await ownPlan(page, demo, 'Mask shell', {
    fills: [{
      mould:
        (await (await page.request.get(`${demo.url}/api/library/mould`)).json() as {
          id: string
          body: { name: string }
        }[]).find(m => m.body.name === 'Lantern base')!.id,
      count: 1,
    }],
    additions: [{ id: 'dry-pigment', share: 0.02 }],
  })
  await page.goto(`${demo.url}/plan/${shell}`)
  await choose(page, 'How it is made', 'Shell built up by hand')
  await expect(page.getByRole('heading', { name: 'Coat 3 of 3' })).toBeVisible()
  await page.getByRole('button', { name: 'One less: Coats' }).click()
  await page.getByRole('button', { name: 'Say how thick where' }).click()
  await page.getByRole('textbox', { name: 'Name of area 1' }).fill('Front')
  const area = page.getByRole('group', { name: 'Front' })
  await page.getByRole('textbox', { name: 'Name of area 1' }).press('Tab')
  await area.getByLabel('Coat 2 is thick').fill('9 mm')
  await area.getByLabel('Coat 2 is thick').press('Enter')
  // 200 by 200 by 9 mm is 360 ml, and 6 % more for losses: 382 ml.
  await expect(page.locator('article').filter({ hasText: 'Coat 2 of 2' })).toContainText('makes 380 ml')
  await area.getByLabel('Coat 2 is thick').fill('1 mm')
  await area.getByLabel('Coat 2 is thick').press('Enter')
  await expect(page.getByText(/dries before it sets/)).toBeVisible()
  await choose(page, 'Cloth or fibre', 'Open cloth, jute or scrim')
  await expect(page.getByText(/^\s*4 strips of 80 mm × 400 mm, 1.125 cm² with laps\. It drinks about 100 ml of mix/)).toBeVisible()
  await page.getByText('Scale, room and places').click()
  await choose(page, 'How it goes in: Dry pigment', 'Folded in last')
  await area.getByLabel('Coat 2 is thick').fill('7 mm')
  await area.getByLabel('Coat 2 is thick').press('Enter')
  await expectAccessible(page)
  await expect(page.getByText(/· saved\s*$/)).toBeVisible()
  await toBench(page)
  for (const next of ['Weigh water, then powder', 'Sift the powder in']) await press(page, next)
  await later(page, demo, 240)
  for (const next of ['Let it soak', 'Stir under the surface']) await press(page, next)
  await expect(page.getByRole('list', { name: 'What else goes in' })).toContainText(/Folded in last:\s*5\.1 g dry pigment/)
  for (const next of ['Lay the face coat', 'Clean up while it sets']) await press(page, next)
  // It may be told by a cue too, in the same words.
  await expect(page.getByText(/^\s*Start mixing coat 2 (at \d|now)/).last()).toBeVisible()
  await expect(page.getByText(/wait until a drawn finger leaves a standing peak/)).toBeVisible()
  await expect(page.locator('.coat')).toContainText('Front 7.0 mm')
  await page.getByRole('button', { name: 'Will not pour' }).click()
  await expect(page.getByText(/^\s*Coat 2 on now, before/).last()).toBeVisible()
  await press(page, 'Weigh water, then powder')
  await expect(page.getByRole('button', { name: /^Coat 2/ })).toHaveAttribute('aria-pressed', 'true')
  await later(page, demo, 3600)
  await expect(page.getByText('Too late to bond by itself')).toBeVisible()
  await expect(page.getByText(/Score it, wet it until it drinks no more/)).toBeVisible()
  await expectAccessible(page)
})

test('a wall shows what is live to whoever has its link, follows along, names nobody, and goes dark when the link is taken back; other screens are told of moments', async ({ page, browser, demo }) => {
  await enterDemo(page, demo)
  await page.goto(`${demo.url}/settings`)
  const walls = page.getByRole('region', { name: 'Wall displays' })
  await walls.getByLabel('What for').fill('Evening class')
  await walls.getByRole('button', { name: 'Make a link' }).click()
  const address = await page.getByRole('link', { name: /\/wall\// }).getAttribute('href')
  await expectAccessible(page)
  await ownPour(page, demo, 'For the class')
  const room = await browser.newContext(), wall = await room.newPage()
  await wall.goto(address!)
  const shown = wall.getByRole('article').filter({ hasText: 'For the class' })
  await expect(shown).toContainText('Get the moulds and table ready')
  await press(page, 'Weigh water, then powder')
  await expect(shown).toContainText('Weigh water, then powder')
  await press(page, 'Sift the powder in')
  await expect(shown).toContainText(/ in \d+ (min|s)/)
  await expectAccessible(wall)
  // Without signing in it can ask for nothing else.
  expect((await wall.request.get(`${demo.url}/api/pours`)).status()).toBe(401)
  const body = await (await wall.request.get(`${demo.url}/api/wall/${address!.split('/').at(-1)}`)).text()
  expect(body).not.toMatch(/Marl|Isbet|"startedBy"/)

  const second = await browser.newContext(), office = await second.newPage()
  await enterDemo(office, demo)
  await office.goto(`${demo.url}/moulds`)
  const heading = office.getByRole('heading', { level: 1, name: 'Moulds' })
  await expect(heading).toBeVisible()
  const stands = await heading.boundingBox()
  await later(page, demo, 3 * 3600)
  await expect(office.getByLabel('Moments of pours and jobs')).toContainText(
    /For the class\. .*The moulds can be opened now\./,
  )
  // What comes up moves nothing from under a hand.
  expect(await heading.boundingBox()).toEqual(stands)
  await expectAccessible(office)
  await office.getByLabel('Moments of pours and jobs').locator('p').filter({ hasText: 'For the class' }).getByRole(
    'button',
    { name: 'Seen' },
  ).click()
  await expect(office.getByLabel('Moments of pours and jobs').filter({ hasText: 'For the class' })).toHaveCount(0)

  await page.goto(`${demo.url}/settings`)
  await page.getByRole('button', { name: 'Revoke the link Evening class' }).click()
  await expect(wall.getByText('This link was taken back. Ask for a new one.')).toBeVisible()
  await Promise.all([room.close(), second.close()])
})
