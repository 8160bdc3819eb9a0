import {
  choose,
  clickIn,
  enterDemo,
  expect,
  expectAccessible,
  expectIn,
  later,
  ownPour,
  press,
  test,
  turnTo,
  turnToAndPress,
} from './workshop'

test('a cast is opened, weighed three times and moved: its dry date moves, holds, and says why', async ({ page, demo }) => {
  await enterDemo(page, demo)
  // Of no bag: what other tests taught one would divide it into other batches.
  await ownPour(page, demo, 'To be weighed', { bag: undefined })
  for (
    const next of [
      'Weigh water, then powder',
      'Sift the powder in',
      'Let it soak',
      'Stir under the surface',
      'Tap the bucket, then pour',
      'Clean up while it sets',
      'Weigh water, then powder',
      'Sift the powder in',
      'Let it soak',
      'Stir under the surface',
      'Tap the bucket, then pour',
      'Clean up while it sets',
      'Leave it alone',
    ]
  ) await press(page, next)
  await later(page, demo, 3 * 3600)
  await page.goto(`${demo.url}/shelf`)
  const onShelf = await turnTo(page, page.getByRole('listitem').filter({ hasText: 'To be weighed' }))
  // By keyboard: the focus stays with the row, whatever it is listed under now.
  await onShelf.getByRole('button', { name: 'Opened: Lantern base 1–3' }).press('Enter')
  await expect(onShelf.getByRole('button', { name: 'Inspect: Lantern base 1–3' })).toBeFocused()
  await page.keyboard.press('Enter')
  // A dialog takes the focus when it has come to rest: a key before that would be for what it chose.
  await expect(page.getByRole('dialog').locator(':focus')).toHaveCount(1)
  await page.getByRole('button', { name: /^Good/ }).press('Enter')
  await expect(onShelf.getByRole('button', { name: 'Finished: Lantern base 1–3' })).toBeFocused()
  await clickIn(page, onShelf, 'Weigh or feel: Lantern base 1–3')
  const dialog = page.getByRole('dialog', { name: 'Lantern base 1–3' })
  await expect(dialog.getByRole('img', { name: /Predicted weight from .* 0 weighings/ })).toBeVisible()
  await expect(dialog.getByText(/that is why it feels cold/)).toBeVisible()
  await expectAccessible(page)
  await expect(dialog.locator('dt').first()).toHaveText('Handling')
  const paint = dialog.locator('dt', { hasText: 'Paint that breathes' }).locator('xpath=following-sibling::dd[1]')
  const before = await paint.innerText()

  // It dries about half as fast as a usual room would have it.
  const weigh = async (grams: number) => {
    await dialog.getByLabel('It weighs now').fill(`${grams} g`)
    await dialog.getByLabel('It weighs now').press('Enter')
    await expect(dialog.getByText(`${grams} g noted.`)).toBeVisible()
  }
  await weigh(761)
  await expect(dialog.getByText('fitted to one weighing of this cast')).toBeVisible()
  await later(page, demo, 86_400)
  await weigh(740)
  await later(page, demo, 86_400)
  await weigh(720)
  await expect(dialog.getByText('fitted to 3 weighings of this cast')).toBeVisible()
  await expect(paint).not.toHaveText(before)
  const held = await paint.innerText()
  await dialog.getByRole('button', { name: 'Still cold' }).click()
  await expect(dialog.getByText('Noted: still cold.')).toBeVisible()
  expect(await paint.innerText()).toBe(held)

  await dialog.getByLabel('It weighs now').fill('heavy')
  await dialog.getByLabel('It weighs now').press('Enter')
  await expect(dialog.getByRole('alert')).toBeVisible()
  await dialog.getByLabel('Air there').fill('60 C')
  await dialog.getByLabel('Air there').press('Enter')
  await expect(dialog.getByText(/Not above 50 °C: plaster begins to lose the water it is made of/)).toBeVisible()

  // The first of the three was weighed; the others are moved with it.
  await choose(page, dialog.getByRole('combobox', { name: 'Where they stand' }), 'Outside, on damp ground')
  await expect(dialog.getByText(/Not here. It lies on damp ground and drinks from it.*in a room at 20 °C/)).toBeVisible()
  await choose(page, dialog.getByRole('combobox', { name: 'Where they stand' }), 'Outside on a rack, open to the sky')
  await dialog.getByLabel('Warmest by day').fill('3 C')
  await dialog.getByLabel('Warmest by day').press('Enter')
  await expect(dialog.getByText('The night is colder than the day.')).toBeVisible()
  await choose(page, dialog.getByRole('combobox', { name: 'The days' }), 'Sunny')
  await expect(dialog.getByText('Noted where it stands.')).toBeVisible()
  await expectAccessible(page)
  await page.keyboard.press('Escape')
  await expectIn(page, onShelf.getByText(/Move it out of the sun/))
  await expectAccessible(page)
  const { events }
    = await (await page.request.get(
      `${demo.url}/api/pours/${(await onShelf.getByRole('link').first().getAttribute('href'))!.split('/').at(-1)}`,
    )).json() as { events: { kind: string }[] }
  const count = (kind: string) => events.filter(e => e.kind === kind).length
  expect([count('cast-weighed'), count('felt'), count('placed')]).toEqual([3, 3, 9])
})

test('a defect is named, its cause stands with its evidence, and what is confirmed is kept', async ({ page, demo }) => {
  await enterDemo(page, demo)
  await ownPour(page, demo, 'Chalky', { bag: undefined })
  await press(page, 'Weigh water, then powder')
  // A fifth too much water.
  await page.getByLabel('or this much water').fill('850 g')
  await page.getByLabel('or this much water').press('Enter')
  await page.getByRole('button', { name: 'Powder as planned' }).click()
  await page.getByLabel('Powder went in').blur()
  for (
    const next of [
      'Sift the powder in',
      'Let it soak',
      'Stir under the surface',
      'Tap the bucket, then pour',
      'Clean up while it sets',
      'Weigh water, then powder',
      'Sift the powder in',
      'Let it soak',
      'Stir under the surface',
      'Tap the bucket, then pour',
      'Clean up while it sets',
      'Leave it alone',
    ]
  ) await press(page, next)
  await later(page, demo, 4 * 3600)
  await page.goto(`${demo.url}/shelf`)
  const onShelf = await turnTo(page, page.getByRole('listitem').filter({ hasText: 'Chalky' }))
  await clickIn(page, onShelf, 'Opened: Lantern base 1–3')
  await clickIn(page, onShelf, 'Inspect: Lantern base 1–3')
  await page.getByLabel('Soft or chalky').check()
  await page.getByRole('button', { name: /^Second/ }).click()
  await turnToAndPress(page, onShelf.getByRole('link', { name: 'Lantern base 1–3' }))
  const why = page.getByRole('region', { name: 'Why' })
  const first = why.getByRole('listitem').filter({ hasText: 'Next time' }).first()
  await expect(first).toContainText('Mixed too thin')
  await expect(first).toContainText('20 % more water than planned (54 for 45)')
  await expect(first).toContainText('Weigh both')
  await expectAccessible(page)
  await first.getByRole('button', { name: /^Mixed too thin was behind/ }).click()
  await expect(why.getByText('It came of: mixed too thin.')).toBeVisible()
  await expect(page.getByText('Lantern base 1: soft or chalky came of: mixed too thin')).toBeVisible()
  expect(await (await page.request.get(`${demo.url}/api/causes`)).json()).toContainEqual({
    defect: 'soft',
    cause: 'too-thin',
    times: 3,
  })
})
