import { choose, enterDemo, expect, ownPlan, test } from './workshop'

test.describe('the lab', () => {
  test('two mixes side by side: a lever, an additive, what changed in words, ranges, a copy, and all of it after a reload', async ({ page, demo }) => {
    await enterDemo(page, demo)
    await page.getByRole('link', { name: 'Lab', exact: true }).click()
    const changes = page.getByLabel('What changed against A')
    const row = (name: string) => page.getByRole('row', { name: new RegExp(`^${name}`) })
    await expect(changes).toContainText(/60 of water instead of 70: .*stronger when dry/)

    // The keyboard moves a lever; the words and the table follow.
    const water = page.getByRole('slider', { name: 'Water per 100 powder' })
    await water.focus()
    for (let i = 0; i < 15; i++) await water.press('ArrowRight')
    await expect(changes).toContainText(/75 of water instead of 70: .*weaker when dry/)
    await expect(row('Gloss goes').getByRole('cell').nth(1)).toContainText(/\d+ min \d+–\d+ min/)

    await page.getByRole('button', { name: 'Gloss goes' }).click()
    await expect(page.getByText('To the eye: grains jam or needles span the mix, 20 kPa.')).toBeVisible()

    // A retarder is said to be uncertain, and too much of it to be harmful; clearing it takes it away again.
    await choose(page, 'Add to the mix', 'Citric acid or citrate')
    await expect(changes).toContainText(/0\.1 % citric acid or citrate: .*sets .* later/)
    await expect(page.getByText('B: Citric acid or citrate: its effect is known to an order of magnitude; try a cup.'))
      .toBeVisible()
    const dose = page.getByRole('textbox', { name: 'Citric acid or citrate, percent of the powder’s weight' })
    await dose.fill('0.5')
    await dose.press('Enter')
    await expect(page.getByText(/B: Citric acid or citrate above 0\.3 %: it may never harden/)).toBeVisible()

    // A third, copied from the second; taking B away moves it up.
    await page.getByRole('button', { name: 'Copy B and change it' }).click()
    await choose(page, 'Mould', 'Wood')
    await expect(changes).toContainText(/wood mould/)
    await page.reload()
    await expect(page.getByRole('button', { name: /^C Plaster of Paris at 75, 25 mm in wood/ })).toHaveAttribute(
      'aria-pressed',
      'true',
    )
    await page.getByRole('button', { name: 'Take away C' }).click()
    await page.getByRole('button', { name: 'Take away B' }).click()
    await expect(page.getByRole('columnheader')).toHaveCount(2)
  })

  test('what cannot be worked out is refused in words and leaves the rest drawn; a plan can be brought in', async ({ page, demo }) => {
    await enterDemo(page, demo)
    await page.goto(`${demo.url}/lab`)
    const ratio = page.getByRole('textbox', { name: /^Water per 100 powder/ })
    await ratio.fill('40')
    await ratio.press('Enter')
    await expect(page.getByText('This jams and will not pour. Use 60 to 90.')).toBeVisible()
    await expect(page.getByRole('row', { name: /^Gloss goes/ }).getByRole('cell').first()).toContainText('min')
    await expect(page.getByRole('row', { name: /^Gloss goes/ }).getByRole('cell').nth(1)).toHaveText('—')
    await ratio.fill('100')
    await ratio.press('Enter')
    await expect(page.getByText('B: Outside what the model was checked for: this powder is used at 60 to 90.'))
      .toBeVisible()
    await choose(page, page.getByRole('combobox', { name: /^Start again from/ }), 'Six lantern bases')
    await expect(page.getByRole('button', { name: /^A Gypsum cement at 45, 30 mm in silicone/ })).toBeVisible()
    await expect(page.getByLabel('What changed against A')).toHaveText('B Nothing is changed yet.')
  })

  test('the notes say where the numbers come from, with figures that load', async ({ page, demo }) => {
    await enterDemo(page, demo)
    await page.goto(`${demo.url}/lab`)
    await page.getByRole('navigation', { name: 'Lab' }).getByRole('link', { name: 'How it is worked out' }).click()
    await expect(page.getByRole('heading', { name: 'Where it is weak' })).toBeVisible()
    const figure = page.getByRole('img', { name: 'Strength against ratio' })
    await figure.scrollIntoViewIfNeeded()
    await expect.poll(() => figure.evaluate(img => (img as HTMLImageElement).naturalWidth)).toBeGreaterThan(300)
  })

  test('a saying is translated with the powder and scoop in hand, typed or picked', async ({ page, demo }) => {
    await enterDemo(page, demo)
    await page.goto(`${demo.url}/lab/sayings`)
    await expect(page.getByText(/^\s*Right for plaster of Paris: 61 to 85 lies within its 60 to 90\.\s*$/)).toBeVisible()
    await page.getByRole('button', { name: 'tapped down' }).click()
    await expect(page.getByText(/thicker than its 60 to 90/)).toBeVisible()
    await page.getByRole('button', { name: 'It doubles' }).click()
    await expect(page.getByText(/does not quite double: you run short/)).toBeVisible()
    await choose(page, 'With this powder or plan', page.getByRole('option', { name: 'Gypsum cement, bag 14' }))
    await expect(page.getByText(/so it does double/)).toBeVisible()

    const typed = page.getByLabel('Say it as you know it')
    await typed.fill('2:1')
    await expect(page.getByText(/^\s*By weight: /)).toBeVisible()
    await expect(page.getByText(/^\s*By volume: /)).toBeVisible()
    await typed.fill('plenty')
    await expect(page.getByText(/^\s*Type two amounts, like/)).toBeVisible()
    await typed.fill('10 lb to a gallon')
    await expect(page.getByText('83 water per 100 powder by weight')).toBeVisible()
    const mould = page.getByLabel('For a mould of')
    await mould.fill('2 US qt')
    await mould.press('Enter')
    await expect(page.getByText(/For 1.895 ml: /)).toBeVisible()
    await typed.fill('overmixed plaster never sets')
    await expect(page.getByText(/^\s*Stirred for 8 min it sets sooner, by about/)).toBeVisible()
    await typed.fill('')
    await page.getByRole('button', { name: 'When it is warm it is done' }).click()
    await expect(page.getByText(/It is warmest \d+ min after powder met water/)).toBeVisible()
    // The same for a plan that is at hand.
    const plan = await ownPlan(page, demo, 'Said of mine')
    await page.goto(`${demo.url}/plan/${plan}`)
    await page.getByRole('link', { name: 'What is said of it' }).click()
    await page.getByRole('button', { name: 'Sift it in, never dump it' }).click()
    await expect(page.getByText(/^\s*For the plan “Said of mine” and its thickest cast, Lantern base\. Roughly known\.\s*$/)).toBeVisible()
  })
})
