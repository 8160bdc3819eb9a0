import { AGAIN, choose, enterDemo, expect, installed, press, test } from './workshop'

const id = (url: string) => url.split('/').at(-1)!

test('far from any network: a print becomes a mould, a plan and a pour, the page is closed and opened, and all of it arrives', async ({ page: first, context, demo }) => {
  // The lists are kept here without being opened.
  const listed = first.waitForResponse(/api\/library\/bag$/)
  await enterDemo(first, demo)
  await installed(first)
  await listed
  await context.setOffline(true)

  await first.goto(`${demo.url}/moulds/print`)
  await first.locator('input[type=file]').setInputFiles('public/samples/print.jpg')
  await first.getByLabel('Name', { exact: true }).fill('Far print')
  await first.getByRole('button', { name: 'Keep it as a mould' }).click()
  await first.getByRole('link', { name: 'Go to it' }).click()
  await expect(first.getByText(/kept here, sent when the server is back/)).toBeVisible()
  await expect(first.getByRole('img', { name: 'The print, with what gives its scale' }))
    .toHaveJSProperty('complete', true)
  const mould = id(first.url())
  await first.getByRole('button', { name: 'Plan a pour with it' }).click()
  await first.waitForURL(/\/plan\//)
  const plan = id(first.url())
  await first.close()

  const page = await context.newPage()
  await page.goto(`${demo.url}/plan/${plan}`)
  await expect(page.getByRole('textbox', { name: 'Name of the plan' })).toHaveValue('Far print')
  await choose(page, 'Bucket', page.getByRole('option').first())
  await page.getByRole('button', { name: 'Take to the bench' }).click()
  await page.waitForURL(/\/bench\//)
  const pour = id(page.url())
  for (const step of [/Weigh/, /Sift/, /soak|wet through/, /Stir/, /pour/i, /Clean up/]) await press(page, step)
  await expect(page.getByText(/last heard \d+:\d\d, kept here/)).toBeVisible()

  await context.setOffline(false)
  await expect.poll(async () =>
    (await context.request.get(`${demo.url}/api/pours/${pour}`, AGAIN)).status(),
  ).toBe(200)
  await expect(page.getByText(/last heard|sending/i)).toHaveCount(0)
  const { planId, events } = await (await context.request.get(`${demo.url}/api/pours/${pour}`, AGAIN)).json() as {
    planId?: string
    events: { data: { stage?: string } }[]
  }
  expect(planId).toBe(plan)
  expect(events.map(e => e.data.stage).filter(Boolean))
    .toEqual(['ready', 'weigh', 'sift', 'soak', 'stir', 'fill', 'clean-up'])
  // A photo goes when its mould is there.
  await expect.poll(async () =>
    (await (await context.request.get(`${demo.url}/api/photos?mould=${mould}`, AGAIN)).json() as object[]).length,
  ).toBe(1)
})
