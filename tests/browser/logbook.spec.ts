import { launch } from '../product'
import { choose, enterDemo, expect, expectAccessible, expectIn, test, turnTo, turnToAndPress } from './workshop'

test('the logbook finds by a word and by what went wrong, keeps the view, and says so when nothing fits', async ({ page, demo }) => {
  await enterDemo(page, demo)
  await page.goto(`${demo.url}/logbook`)
  await expect(page.getByRole('main').getByRole('status').first()).toContainText(/\d+ pours/)
  await page.getByLabel('Find pours').fill('TILES')
  await expect(page.getByRole('link', { name: /Garden tiles/ }).first()).toBeVisible()
  await expect(page.getByRole('link', { name: /Bell-pulls/ })).toHaveCount(0)
  await choose(page, 'Defect', 'Layer line')
  await expect(page.getByRole('link', { name: /Garden tiles/ })).toHaveCount(1)
  // What is looked for is in the address: a reload finds the same.
  await page.reload()
  await expect(page.getByRole('link', { name: /Garden tiles/ })).toHaveCount(1)
  await expect(page.getByLabel('Find pours')).toHaveValue('TILES')
  const name = `Tiles that split ${Date.now()}`
  await page.getByRole('button', { name: 'Keep this view' }).click()
  await page.getByLabel('Name of the view').fill(name)
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(page.getByRole('button', { name })).toHaveAttribute('aria-pressed', 'true')
  await expectAccessible(page)
  await page.getByLabel('Find pours').fill('nothing like it')
  await expect(page.getByText('No pour fits all of this.')).toBeVisible()
  await page.getByRole('button', { name: 'Show all' }).click()
  await expectIn(page, page.getByRole('link', { name: /Bell-pulls/ }))
  await page.getByRole('button', { name }).click()
  await expect(page.getByRole('link', { name: /Garden tiles/ })).toHaveCount(1)
  await page.getByRole('button', { name: 'Take this view away' }).click()
  await expect(page.getByRole('button', { name })).toHaveCount(0)
})

test('pours are set side by side: what differs, and what happened on one scale of time', async ({ page, demo }) => {
  await enterDemo(page, demo)
  await page.goto(`${demo.url}/logbook?find=lantern%20bases&facts=status:finished`)
  const boxes = page.getByRole('checkbox', { name: /^Compare Six lantern bases/ })
  await expect(boxes).toHaveCount(2)
  await boxes.nth(0).check()
  await expect(page.getByText('Choose another to compare it with.')).toBeVisible()
  await boxes.nth(1).check()
  await page.getByRole('button', { name: 'Compare them' }).click()
  const table = page.getByRole('region', { name: 'The pours side by side' })
  await expect(table.getByRole('columnheader')).toHaveCount(2)
  await expect(table.getByRole('row', { name: /^second / })).toContainText('3 of 6')
  await expect(table.getByRole('row', { name: /^soak / })).toHaveCount(0)
  await table.getByLabel('only what differs').uncheck()
  await expect(table.getByRole('row', { name: /^soak / })).toHaveCount(1)
  await expect(page.getByRole('figure')).toContainText('gloss goes: expected')
  await expectAccessible(page)
  await page.goto(`${demo.url}/logbook/compare?pours=nonsense`)
  await expect(page.getByText('Tick two to six pours in the logbook')).toBeVisible()
})

test('charts over time have their figures beside them, and a bag can be looked at alone', async ({ page, demo }) => {
  await enterDemo(page, demo)
  await page.goto(`${demo.url}/logbook/charts`)
  await expect(page.getByRole('main')).toContainText(/\d+ % good at the first try/)
  for (
    const chart of [
      'Pieces good, second and waste, by month',
      'When the gloss went, as a share of the forecast',
      'Casts by what was wrong',
      'Cost of a usable piece, by month',
    ]
  ) await expect(page.getByRole('img', { name: chart })).toBeVisible()
  const set = page.getByRole('region', { name: 'When the gloss went, against the forecast' })
  await set.getByText('Its figures').click()
  const all = await set.getByRole('row').count()
  await choose(page, set.getByRole('combobox'), /Gypsum cement/)
  await expect.poll(() => set.getByRole('row').count()).toBeLessThan(all)
  await expect(page.getByRole('main')).toContainText(/\d+ % of about \d+/)
  await expectAccessible(page)
})

test('what differs is answered as it is: cannot tell, and how many more pours it takes', async ({ page, demo }) => {
  await enterDemo(page, demo)
  await page.goto(`${demo.url}/logbook/trials`)
  await expect(page.getByText(/^\s*(Cannot tell yet|It differs|Too few to say)\s*$/)).toBeVisible()
  await choose(page, 'What may be behind it?', 'bag')
  await expect(page.getByRole('combobox', { name: 'First side' })).toBeVisible()
  await page.getByLabel(/A difference worth having/).fill('40')
  await page.getByLabel(/A difference worth having/).blur()
  await expect(page.getByText(/drawn by lot/)).toBeVisible()
  await expectAccessible(page)
})

test('a piece is looked over: faults where they are, by pointer and by keys, a measure, a photo, and another piece beside it', async ({ page, demo }) => {
  await enterDemo(page, demo)
  const { rows } = await (await page.request.get(`${demo.url}/api/logbook/pours?find=evening&facts=status:finished`))
    .json() as { rows: { id: string }[] }
  await page.goto(`${demo.url}/pour/${rows[0]!.id}`)
  await page.getByRole('link', { name: 'Lantern base 1' }).click()
  const face = page.getByRole('group', { name: /^Sketch of Lantern base 1/ })
  await page.getByRole('radio', { name: 'Crack' }).click()
  const box = (await face.boundingBox())!
  await page.mouse.click(box.x + box.width / 2 - 0.2 * box.height, box.y + 0.3 * box.height)
  const crack = page.getByRole('button', { name: /^Crack, plain, upper left/ })
  await expect(crack).toBeVisible()
  await page.getByRole('group', { name: 'How bad the chosen one is' }).getByText('Spoils it').click()
  await page.getByRole('radio', { name: 'Stain' }).click()
  await face.focus()
  await page.keyboard.press('Enter')
  const stain = page.getByRole('button', { name: /^Stain, plain, half way down middle/ })
  await stain.focus()
  for (let i = 0; i < 4; i++) await page.keyboard.press('Shift+ArrowRight')
  await expect(page.getByRole('button', { name: /^Stain, plain, half way down right/ })).toBeVisible()
  await expect(page.getByText('2 faults drawn.')).toBeVisible()
  await page.getByRole('textbox', { name: 'What' }).fill('Across the face')
  await page.getByLabel('Measured').fill('90 mm')
  await page.getByLabel('Of the model').fill('92 mm')
  await page.getByLabel('Of the model').blur()
  await page.getByRole('button', { name: 'Note it' }).click()
  await expect(page.getByText(/too small/)).toBeVisible()
  await choose(page, 'Check list', 'Dental model and base')
  await page.getByLabel(/^Base, at least/).fill('16 mm')
  await page.getByLabel(/^Base, at least/).blur()
  await expect(page.getByText(/as it should be, at least 15/)).toBeVisible()
  await page.locator('input[type=file]').setInputFiles({
    name: 'face.png',
    mimeType: 'image/png',
    buffer: Buffer.from(
      'iVBORw0KGgoAAAANSUhEUgAAAAIAAAACCAIAAAD91JpzAAAAEElEQVR4nGP4z8AARAwQCgAf7gP9i18U1AAAAABJRU5ErkJggg==',
      'base64',
    ),
  })
  await expect(page.getByRole('group', { name: /^Photo of Lantern base 1/ })).toBeVisible()
  await expect(crack).toHaveCount(0)
  await choose(page, 'Of which pour', page.getByRole('option', { name: /Evening class/ }).first())
  await expect(page.getByRole('group', { name: /for comparison/ })).toBeVisible()
  await page.getByRole('button', { name: 'Second' }).click()
  await expectAccessible(page)
  // All of it is in the record, and the reasons are asked for.
  await page.reload()
  await expect(page.getByRole('button', { name: /^Crack, spoils it, upper left/ })).toBeVisible()
  await page.goto(`${demo.url}/pour/${rows[0]!.id}`)
  await expect(page.getByText(/Lantern base 1: 2 faults drawn, crack, stain/).first()).toBeVisible()
  await expect(page.getByText(/Lantern base 1: across the face 90/)).toBeVisible()
  await expect(page.getByRole('main')).toContainText(/crack/i)
})

test('a table of one’s own is seen before it is taken in: what cannot be read is named, the rest goes in once', async ({ page, demo }) => {
  await enterDemo(page, demo)
  await page.goto(`${demo.url}/logbook`)
  await page.getByRole('link', { name: 'Import a table' }).click()
  await page.locator('input[type=file]').setInputFiles({
    name: 'book.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      'Day;Form;Plaster;Casts;Good;Note\n3/11/2019;Garden tile;pottery plaster;4;4;Kiln room\n4/11/2019;Gnome;pottery plaster;1;1;\n',
    ),
  })
  await expect(page.getByText('There is no mould “Gnome” in the library. Bring the moulds in first.')).toBeVisible()
  await expect(page.getByRole('combobox', { name: 'Mould, needed' })).toContainText('Form')
  await expectAccessible(page)
  await page.getByRole('button', { name: 'Take 1 row in, leave 1 out' }).click()
  await expect(page.getByText('Taken in: 1 pour with')).toBeVisible()
  await expect(page.getByText('1 row left out, as said below.')).toBeVisible()
  await expect(page.getByRole('button', { name: /^Take 0 rows/ })).toBeDisabled()
  await page.goto(`${demo.url}/logbook?find=kiln`)
  await expect(page.getByRole('link', { name: /Garden tile/ })).toContainText('3 Nov 2019')
  // The wrong file, or twice the same: it goes out again.
  await page.goto(`${demo.url}/logbook/table`)
  await page.getByRole('region', { name: 'Brought in lately' }).getByRole('button', { name: 'Take it out again' }).click()
  await expect(page.getByText('Taken out again.')).toBeVisible()
  await page.goto(`${demo.url}/logbook?find=kiln`)
  await expect(page.getByText('Garden tile')).toHaveCount(0)
  await page.goto(`${demo.url}/logbook/table`)
  await page.locator('input[type=file]').setInputFiles({
    name: 'cat.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('only one column\n'),
  })
  await expect(page.getByText('There is no table in this file.')).toBeVisible()
})

test('a recipe goes out as a file and comes back as a plan without moulds; anything else is refused in words', async ({ page, demo }) => {
  await enterDemo(page, demo)
  await page.goto(`${demo.url}/plan`)
  await turnToAndPress(page, page.getByRole('link', { name: /Ceiling rosette/ }).first())
  const saved = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save as a recipe' }).click()
  const path = await (await saved).path()
  expect((await saved).suggestedFilename()).toBe('ceiling-rosette.recipe.json')
  await expect(page.getByRole('link', { name: 'Bench sheet to print' })).toHaveAttribute('href', /\/sheet$/)
  const sheet = await page.request.get(
    `${demo.url}${await page.getByRole('link', { name: 'Bench sheet to print' }).getAttribute('href')}`,
  )
  expect((await sheet.body()).subarray(0, 5).toString()).toBe('%PDF-')
  await page.goto(`${demo.url}/plan`)
  await page.locator('input[type=file]').setInputFiles({
    name: 'x.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{"format": "soup"}'),
  })
  await expect(page.getByRole('alert')).toHaveText('This is not a recipe of Nine Ripples.')
  await page.locator('input[type=file]').setInputFiles(path)
  await page.waitForURL(/plan\/.+/)
  await expect(page.getByLabel('Name of the plan')).toHaveValue('Ceiling rosette')
  await expect(page.getByRole('heading', { name: 'Still missing' })).toBeVisible()
  await page.request.delete(page.url().replace('/plan/', '/api/plans/'), { headers: { origin: demo.url } })
})

test('a whole workshop moves to an empty machine: saved, brought in, and there', async ({ page, demo }) => {
  await enterDemo(page, demo)
  const archive = await (await page.request.get(`${demo.url}/api/archive`)).body(),
    bare = await launch(process.env.TEST_DATABASE_BASE!, { demo: false })
  try {
    await page.goto(`${bare.url}/sign-in`)
    await page.getByLabel('Name of the workshop').fill('New place')
    await page.getByLabel('Your name').fill('Someone')
    await page.getByLabel('E-mail address').fill('owner@example.org')
    await page.getByLabel(/^Password/).fill('long enough to keep')
    await page.getByRole('button', { name: 'Open the workshop' }).click()
    await page.getByRole('link', { name: 'Workshop' }).click()
    const whole = page.getByRole('region', { name: 'The whole workshop' }),
      bring = (buffer: Buffer) =>
        whole.getByLabel('Bring an archive in').setInputFiles({ name: 'w.zip', mimeType: 'application/zip', buffer })
    await bring(archive.subarray(0, 5000))
    await expect(whole.getByRole('alert')).toContainText('not a whole archive')
    await bring(archive)
    await expect(whole.getByText(/Taken in: \d+ pours with \d+ entries/)).toBeVisible()
    await expect(page.getByRole('heading', { name: 'Saltmarsh Lane' })).toBeVisible()
    await bring(archive)
    await expect(whole.getByRole('alert')).toContainText('only taken into an empty workshop')
    await expectAccessible(page)
    await page.getByRole('link', { name: 'Logbook' }).click()
    await expect(page.getByRole('link', { name: /Six lantern bases/ }).first()).toBeVisible()
  }
  finally {
    await bare.kill()
  }
})

test('a bag is measured: a cup’s time moves what is known of it, a level scoop its weight', async ({ page, demo }) => {
  await enterDemo(page, demo)
  await page.goto(`${demo.url}/powders`)
  await page.getByRole('button', { name: 'Test Field bags, pre-measured' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByRole('button', { name: 'Powder meets water' }).click()
  await expect(dialog.getByText('Sift it in')).toBeVisible()
  // A cup that runs is still running after a reload.
  await page.reload()
  await page.getByRole('button', { name: 'Test Field bags, pre-measured' }).click()
  await expect(dialog.getByRole('button', { name: 'Gloss gone' })).toBeDisabled()
  await dialog.getByRole('button', { name: 'Give this cup up' }).click()
  await dialog.getByLabel('Gloss gone after').fill('11 min')
  await dialog.getByLabel('Gloss gone after').blur()
  await dialog.getByRole('button', { name: 'Note it' }).click()
  await expect(dialog.getByRole('status').first()).toContainText(
    /After 11 min; its class takes \d+ min\. It sets \d+ % sooner\./,
  )
  await expectAccessible(page)
  // How it flows: a first test names it, one that ran much less far is asked about; both are kept.
  await dialog.getByText('How it flows').click()
  const usual = Number(/runs to about (\d+) mm/.exec(await dialog.getByText(/runs to about/).innerText())![1])
  const ran = async (across: number, says: RegExp) => {
    await dialog.getByLabel('Across', { exact: true }).fill(`${Math.round(across)} mm`)
    await dialog.getByLabel('Across', { exact: true }).blur()
    await expect(dialog.getByText(says)).toBeVisible()
    await dialog.getByRole('button', { name: 'Keep it' }).click()
    await expect(dialog.getByRole('listitem').filter({ hasText: `${Math.round(across)} mm` }).first()).toBeVisible()
  }
  await ran(usual, /It flows as its class does/)
  await ran(usual * 0.86, /Narrower than it was .* like \d+\. Weighed right\?/)
  await expectAccessible(page)
  await dialog.getByText('What a litre weighs').click()
  await dialog.getByLabel('Powder in it, first time').fill('178 g')
  await dialog.getByLabel('Powder in it, second time').fill('184 g')
  await dialog.getByLabel('Powder in it, second time').blur()
  await expect(dialog.getByText(/A level litre weighs 7[12]0 g/)).toBeVisible()
  await dialog.getByRole('button', { name: 'Keep it' }).click()
  await expect(dialog.getByText('Kept: scoops from this bag are truer now.')).toBeVisible()
  await page.keyboard.press('Escape')
  const row = await turnTo(page, page.getByRole('listitem').filter({ hasText: 'Field bags, pre-measured' }))
  await expect(row).toContainText('1 cup')
  await expect(row).toContainText(/a litre weighs \d+ to \d+ g/)
})

test('the air of the shelf is told once for all that stand in it', async ({ page, demo }) => {
  await enterDemo(page, demo)
  await page.goto(`${demo.url}/shelf`)
  await page.getByRole('button', { name: 'The air here' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Air there').fill('60')
  await dialog.getByLabel('Air there').blur()
  await expect(dialog.getByText(/turns weak/)).toBeVisible()
  await dialog.getByLabel('Air there').fill('12')
  await dialog.getByLabel('Air there').blur()
  await expectAccessible(page)
  const button = dialog.getByRole('button', { name: /^Note it for \d+ casts?$/ }),
    n = Number(/\d+/.exec((await button.textContent())!)![0])
  await button.click()
  await expect.poll(async () =>
    (await (await page.request.get(`${demo.url}/api/casts`)).json() as {
      cast: { drying?: { standing: { air: { celsius: number } } } }
    }[]).filter(c => c.cast.drying?.standing.air.celsius === 12).length,
  ).toBe(n)
})

test('field bags have labels, whose code opens their plan; a cast’s code opens the piece', async ({ page, demo }) => {
  await enterDemo(page, demo)
  await page.goto(`${demo.url}/plan`)
  await turnToAndPress(page, page.getByRole('link', { name: /Towpath, second lock/ }).first())
  const address = await page.getByRole('link', { name: 'Labels for the bags' }).getAttribute('href'),
    id = address!.split('/')[3]!
  expect((await (await page.request.get(`${demo.url}${address}`)).body()).subarray(0, 5).toString()).toBe('%PDF-')
  await page.goto(`${demo.url}/l/P-${id.slice(0, 8).toUpperCase()}`)
  await expect(page.getByLabel('Name of the plan')).toHaveValue('Towpath, second lock')
  const { rows } = await (await page.request.get(`${demo.url}/api/logbook/pours?find=rosette`)).json() as {
    rows: { id: string }[]
  }
  await page.goto(`${demo.url}/l/${rows[0]!.id.slice(0, 8)}-1.1`)
  await expect(page.getByRole('heading', { level: 1, name: 'Ceiling rosette' })).toBeVisible()
  await page.goto(`${demo.url}/l/12345678-1.1`)
  await expect(page.getByRole('alert')).toBeVisible()
  await expectAccessible(page)
})
