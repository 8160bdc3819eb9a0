import type { Page } from '@playwright/test'
import { launch } from '../product'
import {
  choose, enterDemo, expect, expectAccessible, later, ownPlan, ownPour, press, test, turnTo, turnToAndPress,
} from './workshop'

// Its tests stand each for itself: workers share them.
test.describe.configure({ mode: 'parallel' })

const DESK = { width: 1280, height: 800 }, PHONE = { width: 390, height: 844 }
/** Every screen by its heading, with those that are visited together. */
const SCREENS: [of: string, paths: [path: string, heading: string | RegExp][]][] = [
  ['the work', [
    ['/', /\d+ \w+/], ['/plan', 'Plan'], ['/jobs', 'A whole job'], ['/bench', 'Bench'], ['/shelf', 'Shelf'],
    ['/not-taken', 'Not taken'],
  ]],
  ['the logbook and the lab', [
    ['/logbook', 'Logbook'], ['/logbook/charts', 'Logbook'], ['/logbook/trials', 'Logbook'],
    ['/logbook/table', 'Logbook'], ['/lab', 'Lab'], ['/lab/sayings', 'Lab'], ['/lab/model', 'Lab'],
  ]],
  ['what is kept', [
    ['/l/none', 'Label none'], ['/moulds', 'Moulds'], ['/moulds/model', 'From a model'], ['/powders', 'Powders'],
    ['/settings', 'Saltmarsh Lane'], ['/account', 'Marl Quillhouse'], ['/help', 'Help'], ['/new', 'What are you filling?'],
  ]],
]

test.describe('every screen', () => {
  for (const [of, paths] of SCREENS)
    test(`${of} are accessible and fit a desk and a phone`, async ({ page, demo }) => {
      // Nothing on any screen asks for what the content security policy forbids.
      const forbidden: string[] = []
      await page.exposeFunction('forbidden', (what: string) => forbidden.push(what))
      await page.addInitScript(`addEventListener('securitypolicyviolation', e =>
        forbidden(e.violatedDirective + ' ' + e.blockedURI + ' ' + e.sourceFile))`)
      await enterDemo(page, demo)
      for (const [path, heading] of paths) await test.step(path, async () => {
        await page.setViewportSize(DESK)
        await page.goto(demo.url + path)
        await expect(page.getByRole('heading', { level: 1, name: heading })).toBeVisible()
        await expectAccessible(page)
        await page.setViewportSize(PHONE)
        await expectAccessible(page)
        expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(PHONE.width)
        await page.evaluate(() => document.documentElement.classList.add('dark'))
        await expectAccessible(page, 'colours')
      })
      expect(forbidden).toEqual([])
    })

  test('help is searched, a word opens what it means, and ? shows the keys', async ({ page, demo }) => {
    await enterDemo(page, demo)
    await page.goto(`${demo.url}/help`)
    await page.getByLabel('What are you looking for?').fill('slak')
    await expect(page.getByRole('term').first()).toContainText('Soak')
    await page.getByRole('heading', { level: 1 }).click()
    await page.keyboard.press('?')
    await expect(page.getByRole('dialog', { name: 'Keys' })).toContainText('something is wrong')
    await expectAccessible(page)
    await page.keyboard.press('Escape')
    await page.goto(`${demo.url}/powders`)
    await page.getByRole('button', { name: 'Classes' }).click()
    await expect(page.getByText('What kind a powder is.')).toBeVisible()
    await expectAccessible(page)
  })

  test('an address that does not exist says so and leads back', async ({ page, demo }) => {
    await enterDemo(page, demo)
    await page.goto(`${demo.url}/no-such-page`)
    await expect(page.getByRole('heading', { name: 'There is no such page' })).toBeVisible()
    await page.getByRole('button', { name: 'Go to Today' }).click()
    await expect(page.getByRole('link', { name: 'Today' })).toHaveAttribute('aria-current', 'page')
  })
})

test('today shows what is live, due and late, and leads to it', async ({ page }) => {
  // A demo of its own, just made: other tests turn the shared one's clock.
  const own = await launch(process.env.TEST_DATABASE_BASE!, { demo: true })
  await enterDemo(page, own)
  await expect(page.getByRole('heading', { name: 'Bell-pulls' })).toBeVisible()
  await expect(page.getByRole('link', { name: /^Next Open Lantern base .* late$/ })).toBeVisible()
  // The picture tells what each thing is, and how it looks, to who does not see it.
  await expect(page.getByRole('link', { name: /^Garden tile .*dry enough to seal, about \d+ % of its water left$/ })).toBeVisible()
  await page.getByRole('button', { name: 'As a list' }).click()
  await expect(page.getByRole('heading', { name: 'To do' })).toBeVisible()
  await expect(page.getByText(/^\s*Open now: Lantern base/).first()).toBeVisible()
  await expect(page.getByText(/late\s*$/).first()).toBeVisible()
  await page.getByRole('button', { name: 'As a picture' }).click()
  await page.getByRole('button', { name: 'Open Bell-pulls on the bench' }).click()
  await expect(page.getByRole('heading', { level: 2, name: 'Leave it alone' })).toBeVisible()
  await own.kill()
})

test.describe('the plan', () => {
  test('explains what cannot be, beside its field, and answers every other unknown', async ({ page, demo }) => {
    await enterDemo(page, demo)
    await ownPlan(page, demo, 'Bases, thought over')
    await page.getByRole('link', { name: 'Plan', exact: true }).click()
    await turnToAndPress(page, page.getByRole('link', { name: /Bases, thought over/ }))
    const ratio = page.getByRole('textbox', { name: /Water per 100 powder/ })
    await ratio.fill('12')
    await ratio.press('Enter')
    await expect(page.getByText(/binds 17\.3 parts of water to 100 of powder/).first()).toBeVisible()
    await expect(page.getByRole('button', { name: 'Take to the bench' })).toBeDisabled()
    await ratio.fill('44')
    await ratio.press('Enter')
    await expect(page.getByRole('button', { name: 'Take to the bench' })).toBeEnabled()

    // As people say it: asked about where two readings make sense, one press each.
    await choose(page, 'Powder', /^Plaster of Paris/)
    await ratio.fill('2 to 1')
    await ratio.press('Enter')
    await expect(page.getByText('72 by volume, or 50 by weight?')).toBeVisible()
    await page.getByRole('button', { name: /72 by volume is meant/ }).click()
    await expect(ratio).toHaveValue('72')
    await expect(page.getByText('72 water to 100 powder, by volume')).toBeVisible()
    const water = page.getByRole('textbox', { name: 'Water temperature' })
    await water.fill('70')
    await water.press('Enter')
    await page.getByRole('button', { name: /21 °C is meant/ }).click()
    await expect(water).toHaveValue('21 °C')
    await choose(page, 'Powder', /^Gypsum cement, bag 14/)
    await ratio.fill('44')
    await ratio.press('Enter')

    await choose(page, 'How much', 'I have this much powder left')
    await page.getByRole('textbox', { name: 'Powder left' }).fill('1 1/2 lb')
    // 680 g at 44 makes 561 ml, less 6 % for losses 529 ml: one lantern of 412 ml, 117 ml over.
    await expect(page.getByText(/5 of the moulds stay empty\.\s+1\d\d ml is over: test tiles\./)).toBeVisible()
    await choose(page, 'How much', 'To fill the moulds')

    await page.getByRole('button', { name: 'Scoops' }).click()
    await expect(page.getByText(/how the scoop was filled moves the ratio/)).toBeVisible()
    await page.getByRole('button', { name: 'Bag', exact: true }).click()
    await expect(page.getByRole('combobox', { name: 'Bucket' })).toHaveCount(0)
    await page.getByRole('button', { name: 'Weigh', exact: true }).click()
    await expect(page.getByRole('combobox', { name: 'Bucket' })).toBeVisible()
  })

  test('says when the last mould would be filled too late, and what would help', async ({ page, demo }) => {
    await enterDemo(page, demo)
    await page.goto(`${demo.url}/plan/${await ownPlan(page, demo, 'Soaked too long')}`)
    await page.locator('summary').filter({ hasText: 'soak, stirring' }).click()
    const soak = page.getByLabel('Soak', { exact: true })
    await soak.fill('13 min')
    await soak.press('Enter')
    const warning = page.getByText(/too stiff by the last mould/)
    await expect(warning).toBeVisible()
    await expectAccessible(page)
    const before = await warning.textContent(), remedy = page.getByRole('button', { name: /^Soak only 2 min: / })
    await remedy.click()
    await expect(soak).toHaveValue('2 min')
    // How far it helps goes by this workshop's pace, which other tests of it have told.
    await expect(remedy).toHaveCount(0)
    await expect(page.getByText(before!.trim(), { exact: true })).toHaveCount(0)
    // A scale that is too coarse for so little is said, with the amount that it is good for.
    await choose(page, 'The scale reads to', '50 g')
    await expect(page.getByText(/is out by up to .* It is good to 2 % from/)).toBeVisible()
  })

  test('taken to the bench all the same, it is said there too, and a remedy begins the pour again', async ({ page, demo }) => {
    await enterDemo(page, demo)
    await ownPour(page, demo, 'Late all the same', { soakMinutes: 13 })
    const before = page.url(), remedy = page.getByRole('button', { name: /^Soak only 2 min: / })
    await expect(page.getByText(/too stiff by the last mould/)).toBeVisible()
    await expectAccessible(page)
    await remedy.click()
    await expect(page).not.toHaveURL(before)
    await expect(page.getByRole('heading', { level: 2, name: 'Get the moulds and table ready' })).toBeVisible()
    await expect(remedy).toHaveCount(0)
    type Told = { readonly events: readonly { readonly kind: string }[] }
    const told = async () => (await (await page.request.get(before.replace('/bench/', '/api/pours/'))).json() as Told).events
    await expect.poll(async () => (await told()).at(-1)?.kind).toBe('abandoned')
  })

  test('a mould, a bucket and a bag are made for it, and chosen on return', async ({ page, demo }) => {
    await enterDemo(page, demo)
    await page.goto(`${demo.url}/plan/${crypto.randomUUID()}`)
    const made = async (link: string, name: string) => {
      await page.getByRole('link', { name: link }).click()
      const dialog = page.getByRole('dialog')
      await dialog.getByLabel('Name').fill(name)
      await dialog.getByRole('button', { name: 'Save' }).click()
      await expect(page.getByLabel('Name of the plan')).toBeVisible()
    }
    await made('Make a mould for it', 'Made here mould')
    await expect(page.getByLabel('How many: Made here mould').first()).toBeVisible()
    await made('Another bucket', 'Made here bucket')
    await expect(page.getByRole('combobox', { name: 'Bucket', exact: true })).toContainText('Made here bucket')
    await made('A bag of my own', 'Made here bag')
    await expect(page.getByRole('combobox', { name: 'Powder' })).toContainText('Made here bag')
    await expect(page.getByLabel('How many: Made here mould').first()).toBeVisible()
    await page.request.delete(page.url().replace('/plan/', '/api/plans/'), { headers: { origin: demo.url } })
  })

  test('changed on another device meanwhile is not overwritten', async ({ page, demo, context }) => {
    await enterDemo(page, demo)
    await page.goto(`${demo.url}/plan/${await ownPlan(page, demo, 'Met elsewhere')}`)
    const name = page.getByRole('textbox', { name: 'Name of the plan' })
    await expect(name).toHaveValue('Met elsewhere')
    const second = await context.newPage()
    await second.goto(page.url())
    await second.getByRole('textbox', { name: 'Name of the plan' }).fill('Met elsewhere, white')
    await expect(second.getByText(/· saved\s*$/)).toBeVisible()
    await name.fill('Met elsewhere, grey')
    await expect(page.getByText(/changed on another device meanwhile/)).toBeVisible()
    // Both are kept until somebody chooses, also over a reload.
    await second.reload()
    await expect(second.getByRole('row', { name: 'name Met elsewhere, grey Met elsewhere, white', exact: true }))
      .toBeVisible()
    await expectAccessible(second)
    await second.getByRole('button', { name: 'Keep both' }).click()
    await expect(second.getByRole('textbox', { name: 'Name of the plan' })).toHaveValue('Met elsewhere, grey, second version')
    await expect(second.getByText(/· saved$/)).toBeVisible()
    await page.goto(`${demo.url}/plan`)
    for (const name of ['Met elsewhere, white', 'Met elsewhere, grey, second version'])
      await turnTo(page, page.getByRole('link', { name }))
  })

  test('changed in two tabs without a network, one stands beside the other until somebody chooses', async ({
    page, demo, context,
  }) => {
    await enterDemo(page, demo)
    await page.goto(`${demo.url}/plan/${await ownPlan(page, demo, 'In two tabs')}`)
    const nameIn = (tab: Page) => tab.getByRole('textbox', { name: 'Name of the plan' })
    const second = await context.newPage()
    await second.goto(page.url())
    for (const tab of [page, second]) await expect(nameIn(tab)).toHaveValue('In two tabs')
    await context.setOffline(true)
    await nameIn(second).fill('In two tabs, white')
    await expect(second.getByText(/· kept here, sent when the server is back/)).toBeVisible()
    await nameIn(page).fill('In two tabs, grey')
    for (const tab of [page, second])
      await expect(tab.getByRole('row', { name: 'name In two tabs, grey In two tabs, white', exact: true })).toBeVisible()
    await expect(page.getByText('This was changed in two tabs of this browser at once.')).toBeVisible()
    await expectAccessible(page)
    await context.setOffline(false)
    await page.getByRole('button', { name: 'Use the earlier' }).click()
    await expect(nameIn(page)).toHaveValue('In two tabs, white')
    await expect(page.getByText(/· saved\s*$/)).toBeVisible()
    await second.reload()
    await expect(nameIn(second)).toHaveValue('In two tabs, white')
  })
})

test.describe('the bench', () => {
  test('shows the same moment on two devices, takes entries back, locks, mutes and yields its keys', async ({ page, demo, context }) => {
    await enterDemo(page, demo)
    await page.goto(`${demo.url}/bench`)
    await turnToAndPress(page, page.getByRole('button', { name: 'Start Ceiling rosette' }))
    await expect(page.getByRole('heading', { level: 2, name: 'Get the moulds and table ready' })).toBeVisible()
    const second = await context.newPage()
    await second.setViewportSize(PHONE)
    await second.goto(page.url())
    await page.locator('body').press('Space')
    await expect(second.getByRole('heading', { level: 2, name: 'Weigh water, then powder' })).toBeVisible()
    await expectAccessible(second)
    expect(await second.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(PHONE.width)
    await expect(second.locator('[data-settled=true]')).toBeVisible()
    await second.getByRole('button', { name: 'Start sifting' }).click()
    await expect(page.getByRole('heading', { level: 2, name: 'Sift the powder in' })).toBeVisible()

    // Both at once: two entries of the same step, one state.
    for (const device of [page, second]) await expect(device.locator('[data-settled=true]')).toBeVisible()
    await Promise.all([
      page.locator('body').press('Space'),
      second.locator('button.go').evaluate(b => (b as HTMLButtonElement).click()),
    ])
    await expect(page.getByRole('heading', { level: 2, name: 'Let it soak' })).toBeVisible()
    await expect(second.getByRole('heading', { level: 2, name: 'Let it soak' })).toBeVisible()

    const back = page.getByRole('button', { name: /^Back/ })
    // One entry or two, as the presses fell: they were one step, and are taken back as one.
    const told = async () =>
      ((await (await page.request.get(page.url().replace('/bench/', '/api/pours/'))).json()) as {
        events: { data: { stage?: string } }[]
      }).events.filter(e => e.data.stage === 'soak').length
    for (const device of [page, second]) await expect(device.getByText(/^\s*sending/)).toHaveCount(0)
    await expect.poll(told).toBeGreaterThan(0)
    await back.press('Enter')
    await expect(page.getByRole('heading', { level: 2, name: 'Sift the powder in' })).toBeVisible()
    await expect(second.getByRole('heading', { level: 2, name: 'Sift the powder in' })).toBeVisible()

    await back.blur()
    await page.locator('body').press('m')
    await expect(page.getByRole('button', { name: 'Muted' })).toBeVisible()
    await page.getByRole('button', { name: 'Set up' }).click()
    await page.getByRole('button', { name: 'Keys' }).click()
    await page.locator('body').press('Space')
    await expect(page.getByRole('heading', { level: 2, name: 'Sift the powder in' })).toBeVisible()
    await page.getByRole('button', { name: 'Keys' }).click()
    await page.getByRole('button', { name: 'Lock' }).click()
    await expect(page.getByText('Locked against drips.')).toBeVisible()
    await page.getByRole('button', { name: 'Hold to unlock' }).press('Enter')
    await expect(page.getByText('Locked against drips.')).toHaveCount(0)
    await page.getByRole('button', { name: 'Bright' }).click()
    await expectAccessible(page)
  })

  test('tells a cue as it falls due, and flashes the whole screen when asked', async ({ page, demo }) => {
    await enterDemo(page, demo)
    // More plans than a window holds.
    for (let n = 1; n <= 15; n++) await ownPlan(page, demo, `One of many, ${n}`)
    await page.goto(`${demo.url}/settings`)
    await page.getByRole('button', { name: 'Left hand' }).click()
    await page.goto(`${demo.url}/bench`)
    await turnToAndPress(page, page.getByRole('button', { name: 'Start Damp store for next door' }))
    // For the left hand the lesser buttons lie left.
    const fromLeft = async (button: string) => (await page.locator(`footer ${button}`).boundingBox())!.x
    expect(await fromLeft('.wrong')).toBeLessThan(await fromLeft('.go'))
    await page.getByRole('button', { name: 'Flash' }).click()
    await press(page, 'Count the water in')
    await press(page, 'Sift the powder in')
    await expect(page.getByText('since stirring began')).toHaveCount(0)
    await later(page, demo, 1200)
    await expect(page.getByRole('alert')).toBeVisible()
    await expect(page.locator('.flash')).toBeAttached()
  })

  test('a pour that went wrong can be given up, with its reason in the logbook', async ({ page, demo }) => {
    await enterDemo(page, demo)
    await page.goto(`${demo.url}/bench`)
    await turnToAndPress(page, page.getByRole('button', { name: 'Start Towpath, second lock' }))
    await page.waitForURL(/bench\/.+/)
    await page.goto(page.url().replace('/bench/', '/pour/'))
    await page.getByRole('textbox', { name: 'Add a note' }).fill('Rain coming')
    await page.getByRole('button', { name: 'Note it' }).click()
    await expect(page.getByText('“Rain coming”')).toBeVisible()
    await page.getByRole('button', { name: 'Abandon this pour' }).click()
    await page.getByRole('textbox', { name: 'Why it is abandoned' }).fill('The bag had set')
    await page.getByRole('button', { name: 'Give it up' }).click()
    await expect(page.getByText('Given up: The bag had set')).toBeVisible()
    await page.goto(`${demo.url}/logbook`)
    await page.getByRole('textbox', { name: 'Find pours' }).fill('given up')
    await expect(page.getByRole('listitem').filter({ hasText: 'given up' }).filter({ hasText: 'Towpath' })).toHaveCount(1)
  })
})
