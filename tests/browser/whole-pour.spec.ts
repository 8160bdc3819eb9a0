import {
  choose, clickIn, enterDemo, expect, expectAccessible, later, openIn, ownPlan, ownPour, press, test, turnTo,
  turnToAndPress,
} from './workshop'

test('a pour for two kinds of mould, in grams and in cups, by keyboard alone, through a reload and a killed server, into the logbook', async ({ page, demo }) => {
  await enterDemo(page, demo)
  await page.getByRole('link', { name: 'Plan', exact: true }).click()
  await page.getByRole('button', { name: 'New plan' }).click()
  await page.getByRole('textbox', { name: 'Name of the plan' }).fill('Lanterns and bell-pulls')
  await expect(page.getByText('Choose at least one mould to fill.').first()).toBeVisible()
  for (const mould of ['Lantern base', 'Bell-pull']) {
    await choose(page, 'Add a mould', mould)
  }
  await page.getByRole('button', { name: 'One more: How many: Bell-pull' }).click()
  await expect(page.getByText('Choose the bucket you will mix in.').first()).toBeVisible()
  await choose(page, 'Bucket', 'Flexible 2 l bowl')
  // By hand: (412 + 2 x 38) ml x 1.06 = 517 ml; a kilogram of powder makes (0.92/2630 + 0.08/2700 + 0.67/998.2) / 0.98
  // = 1.0721 l.
  await expect(page.getByRole('img', { name: /^To scale\./ })).toHaveAccessibleName(/323 g water.*482 g powder/)
  await expect(page.getByText('open the moulds')).toBeVisible()
  await expect(page.getByText(/· saved\s*$/)).toBeVisible()

  // The same plan read in cups and pounds; typed quantities are taken in any unit.
  await page.request.patch(`${demo.url}/api/workshop`, {
    data: { units: { mass: 'lb', volume: 'cup', length: 'inch', temperature: 'F' } },
    headers: { origin: demo.url },
  })
  await page.reload()
  await expect(page.getByRole('textbox', { name: 'Name of the plan' })).toHaveValue('Lanterns and bell-pulls')
  await expect(page.getByRole('img', { name: /^To scale\./ })).toHaveAccessibleName(
    /11\.4 oz water.*1 lb 1 oz powder/,
  )
  const water = page.getByLabel('Water temperature')
  await water.fill('68F')
  await water.press('Enter')
  await expect(page.getByText('2 min 20 s')).toHaveCount(0)
  await water.fill('2 cups')
  await water.blur()
  await expect(page.getByText(/“cups” measures a volume; this field needs a temperature.*The old value is kept\./))
    .toBeVisible()
  await expect(water).toHaveValue('68 °F')
  await page.request.patch(`${demo.url}/api/workshop`, {
    data: { units: { mass: 'g', volume: 'ml', length: 'mm', temperature: 'C' } },
    headers: { origin: demo.url },
  })
  await page.reload()
  await expectAccessible(page)

  await page.getByRole('button', { name: 'Take to the bench' }).click()
  await expect(page.getByRole('heading', { level: 2, name: 'Get the moulds and table ready' })).toBeVisible()
  await expectAccessible(page)
  await press(page, 'Weigh water, then powder')
  await page.getByRole('button', { name: 'Water as planned' }).click()
  const powder = page.getByLabel('or this much powder')
  await powder.fill('540')
  await powder.press('Enter')
  await expect(page.getByText('That is 60. Add 39 g of water to come back to 67.')).toBeVisible()
  await page.getByLabel('Powder went in').blur()
  await press(page, 'Sift the powder in')
  await later(page, demo, 90)
  await page.locator('body').press('1')
  await expect(page.getByRole('button', { name: 'Islands stay dry ✓' })).toBeVisible()
  await press(page, 'Let it soak')

  // A reload in mid-run shows the same moment.
  await page.reload()
  await expect(page.getByRole('heading', { level: 2, name: 'Let it soak' })).toBeVisible()
  await later(page, demo, 120)

  // The server dies; the bench goes on and keeps what is said.
  await demo.kill()
  await press(page, 'Stir under the surface')
  await expect(page.getByText(/last heard \d+:\d\d, kept here \(1\)/)).toBeVisible()
  await demo.start()
  await expect(page.getByText(/last heard|sending|no connection/i)).toHaveCount(0)
  await page.reload()
  await expect(page.getByRole('heading', { level: 2, name: 'Stir under the surface' })).toBeVisible()

  await later(page, demo, 90)
  await press(page, 'Tap the bucket, then pour')
  await expect(page.getByText(/Pour it all within/)).toBeVisible()
  await page.getByRole('button', { name: /Lantern base/ }).click()
  await expect(page.getByRole('button', { name: /Lantern base filled at/ })).toBeDisabled()
  await press(page, 'Clean up while it sets')
  await page.getByRole('button', { name: 'Set, then the bin' }).click()
  await expect(page.getByRole('button', { name: 'Set, then the bin' })).toHaveAttribute('aria-pressed', 'true')
  await press(page, 'Leave it alone')
  await later(page, demo, 20 * 60)
  await page.getByRole('button', { name: '2 min ago' }).click()
  await page.getByRole('button', { name: 'Gloss gone' }).click()
  await expect(page.getByRole('button', { name: 'Gloss gone ✓' })).toBeVisible()
  await later(page, demo, 2 * 3600)
  await expect(page.getByRole('alert')).toHaveText('The moulds can be opened now.')
  // The clock was turned: by the device's own time the last step has only just begun.
  await expect(page.locator('[data-settled=true]')).toBeVisible()
  await page.locator('body').press('Space')

  await expect(page.getByRole('heading', { name: 'Shelf' })).toBeVisible()
  // Other pours have casts of the same name.
  const onShelf = page.getByRole('listitem').filter({ hasText: 'Lanterns and bell-pulls' })
  for (const cast of ['Lantern base', 'Bell-pull 1–2'])
    await clickIn(page, onShelf, `Opened: ${cast}`)
  await clickIn(page, onShelf, 'Inspect: Lantern base')
  await page.getByRole('button', { name: /^Good/ }).click()
  await clickIn(page, onShelf, 'Inspect: Bell-pull 1–2')
  await page.getByLabel('Trapped air').check()
  await expectAccessible(page)
  await page.getByRole('button', { name: /^Second/ }).click()
  for (const cast of ['Lantern base', 'Bell-pull 1–2'])
    await clickIn(page, onShelf, `Finished: ${cast}`)

  await page.getByRole('link', { name: 'Logbook' }).click()
  await page.getByRole('textbox', { name: 'Find pours' }).fill('lanterns and bell-pulls')
  const row = await turnTo(page, page.getByRole('listitem').filter({ hasText: 'Lanterns and bell-pulls' }))
  await expect(row).toContainText('finished')
  await expect(row).toContainText('1 good, 2 second')
  await expect(row).toContainText('trapped air')
  await expect(row).toContainText('was 60')
  await openIn(page, row)
  await expect(page.getByRole('row', { name: /^gloss goes/ })).toContainText(/\d+ min/)
  await expect(page.getByText('(told later)')).toBeVisible()
  await expect(page.getByText(/thicker than planned/)).toBeVisible()
  await expectAccessible(page)
})

test('a pour with a bag and no scale at all', async ({ page, demo }) => {
  await enterDemo(page, demo)
  await page.getByRole('link', { name: 'Plan', exact: true }).click()
  await turnToAndPress(page, page.getByRole('link', { name: /Towpath, second lock/ }))
  await page.getByRole('textbox', { name: 'Name of the plan' }).fill('Towpath, third lock')
  await expect(page.getByText(/powder in a strong bag, then/)).toBeVisible()
  await expect(page.getByText('sift in, still water')).toHaveCount(0)
  await page.getByRole('button', { name: 'Take to the bench' }).click()
  await expect(page.getByRole('heading', { level: 2, name: 'Get the moulds and table ready' })).toBeVisible()
  await press(page, 'Measure the water')
  await press(page, 'Water in, press the air out, knead')
  await expect(page.getByText('since stirring began')).toBeVisible()
  await later(page, demo, 120)
  await press(page, 'Cut a corner and pour')
  // Something is wrong: one key, one press, and what to do now; it is written down, and Escape goes back to the pour.
  await page.locator('body').press('0')
  await page.getByRole('button', { name: 'Not enough mix' }).click()
  await expect(page.getByText(/^\s*Mix .+ g water and .+ g powder now, the same way but quickly/)).toBeVisible()
  await expectAccessible(page)
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await press(page, 'Clean up while it sets')
  await page.getByRole('button', { name: 'Nothing was left' }).click()
  await press(page, 'Leave it alone')
  await page.getByRole('link', { name: 'Leave' }).click()
  await later(page, demo, 6 * 3600)
  await page.getByRole('link', { name: 'Shelf', exact: true }).click()
  const onShelf = page.getByRole('listitem').filter({ hasText: 'Towpath, third lock' })
  await clickIn(page, onShelf, 'Opened: Boot-heel mark 1–2')
  await clickIn(page, onShelf, 'Inspect: Boot-heel mark 1–2')
  await page.getByRole('button', { name: /^Good/ }).click()
  await clickIn(page, onShelf, 'Finished: Boot-heel mark 1–2')
  await page.getByRole('link', { name: 'Logbook' }).click()
  const row = await turnTo(page, page.getByRole('listitem').filter({ hasText: 'Towpath, third lock' }))
  await expect(row).toContainText('finished')
  await openIn(page, row)
  await expect(page.getByText('Trouble: not enough mix')).toBeVisible()
})

test('water by feel: what is left in the jug is told, gives the ratio, and stands in the logbook', async ({ page, demo }) => {
  await enterDemo(page, demo)
  const id = await ownPlan(page, demo, 'By feel', { bag: undefined, classId: 'casting-plaster', ratio: 0.6, school: 'weighed' })
  await page.goto(`${demo.url}/plan/${id}`)
  await page.getByRole('button', { name: 'By feel', exact: true }).click()
  await expect(page.getByText(/By feel it may end at \d+.*weaker when dry/)).toBeVisible()
  await expect(page.getByText('sift in, still water')).toHaveCount(0)
  await page.getByRole('button', { name: 'Take to the bench' }).click()
  await press(page, 'Weigh the powder, fill the jug')
  await page.getByRole('button', { name: 'Powder as planned' }).click()
  await page.getByRole('button', { name: 'Water as planned' }).click()
  await expectAccessible(page)
  await press(page, 'Most of the water in')
  await press(page, 'Stir, and let water in until it runs')
  // Nothing is left: a tenth more than was aimed at went in.
  await page.getByRole('button', { name: 'Nothing is left in the jug' }).click()
  await expect(page.getByText(/went in: 66 to 100 powder, thinner than the 60 you aimed at/)).toBeVisible()
  // It was misread, and more than there was is no answer.
  const left = page.getByRole('textbox', { name: 'Left in the jug' })
  await left.fill('90 kg')
  await left.press('Enter')
  await expect(page.getByText(/There were .* in the jug\. The old value is kept\./)).toBeVisible()
  await left.fill('150')
  await left.press('Enter')
  await expect(page.getByText(/went in: \d+(\.\d)? to 100 powder/)).not.toContainText('66 to')
  await expectAccessible(page)
  await page.reload()
  await expect(page.getByText(/went in: \d+(\.\d)? to 100 powder/)).toBeVisible()
  await press(page, 'Tap the bucket, then pour')
  const pour = page.url().split('/').at(-1)!
  await page.goto(`${demo.url}/pour/${pour}`)
  await expect(page.getByText('150 g left in the jug')).toBeVisible()
  await expect(page.getByText('Nothing left in the jug')).toBeVisible()
})

test('every trouble, on a phone: what to do now stands whole on the screen, and is written down', async ({ page, demo }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await enterDemo(page, demo)
  await ownPour(page, demo, 'All that can go wrong')
  await press(page, 'Weigh water, then powder')
  const wrong = page.getByRole('button', { name: /^Something is wrong/ }), panel = page.getByRole('dialog')
  await wrong.click()
  const troubles = await panel.locator('.troubles button').allInnerTexts()
  expect(troubles.length).toBeGreaterThanOrEqual(14)
  for (const trouble of troubles) {
    await panel.getByRole('button', { name: trouble.trim(), exact: true }).click()
    await expect(panel.getByRole('listitem').first()).not.toBeEmpty()
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
    await panel.getByRole('button', { name: 'Something else' }).click()
  }
  await expectAccessible(page)
  await page.keyboard.press('Escape')
  const told = async () => (await (await page.request.get(page.url().replace('/bench/', '/api/pours/'))).json()) as {
    events: { kind: string }[]
  }
  await expect.poll(async () => (await told()).events.filter(e => e.kind === 'trouble').length).toBe(troubles.length)
})
