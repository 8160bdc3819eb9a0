import { enterDemo, expect, expectAccessible, ownPour, press, test } from './workshop'

// Answers are changed on their way, which a service worker would do without.
test.use({ serviceWorkers: 'block' })

test('an entry that is not taken stands alone with its reason: the rest goes on, it is mended and goes in', async ({ page, demo }) => {
  await enterDemo(page, demo)
  await ownPour(page, demo, 'One odd note')
  const pour = page.url().split('/').at(-1)!
  await page.goto(`${demo.url}/pour/${pour}`)
  // The server as it would be if the notes that begin with “odd” fitted no pour.
  await page.route('**/api/pours/*/events', async (route) => {
    const sent = route.request().postDataJSON() as { events: { id: string, data: { text?: string } }[] } | null
    const odd = sent?.events.filter(e => e.data.text?.startsWith('odd')) ?? []
    if (!sent || odd.length === 0) return route.continue()
    const others = sent.events.filter(e => !odd.includes(e))
    const refused = odd.map(({ id }) => ({ id, fate: 'refused', code: 'cast', sentence: 'This pour has no such cast.' }))
    if (others.length === 0) return route.fulfill({ json: { events: [], seq: 0, fates: refused } })
    const answer = await route.fetch({ postData: JSON.stringify({ ...sent, events: others }) })
    const told = await answer.json() as { fates: object[] }
    return route.fulfill({ json: { ...told, fates: [...told.fates, ...refused] } })
  })
  for (const words of ['odd one', 'a sound one']) {
    await page.getByLabel('Add a note').fill(words)
    await page.getByRole('button', { name: 'Note it' }).click()
  }
  await expect(page.getByText('1 entry was not taken.')).toBeVisible()
  await expect(page.getByText('“a sound one”')).toBeVisible()
  await page.getByRole('link', { name: 'See what and why' }).click()
  await expect(page.getByRole('heading', { level: 1, name: 'Not taken' })).toBeVisible()
  const entry = page.getByRole('listitem').filter({ hasText: '“odd one”' })
  await expect(entry).toContainText('This pour has no such cast.')
  await expect(entry).toContainText('One odd note')
  await expectAccessible(page)

  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as a file' }).click(),
  ])
  expect(file.suggestedFilename()).toBe('not-taken.json')

  // It is still there after a reload, and still refused when it is sent again as it is.
  await page.reload()
  await entry.getByRole('button', { name: /^Send again/ }).click()
  await expect(entry).toContainText('This pour has no such cast.')
  await entry.getByRole('button', { name: /^Mend/ }).click()
  await page.getByLabel('Its words').fill('mended one')
  await page.getByRole('button', { name: 'Send it so' }).click()
  await expect(page.getByText('Nothing here.')).toBeVisible()
  await expect.poll(async () => {
    const { events } = await (await page.request.get(`${demo.url}/api/pours/${pour}`)).json() as {
      events: { data: { text?: string }, mends?: string }[]
    }
    return events.filter(e => e.data.text).map(e => [e.data.text, e.mends !== undefined])
  }).toEqual([['a sound one', false], ['mended one', true]])
})

test('while another pour cannot be sent, this one goes on', async ({ page, demo }) => {
  await enterDemo(page, demo)
  await ownPour(page, demo, 'Stuck')
  const stuck = page.url().split('/').at(-1)!
  await page.route(`**/api/pours/${stuck}/events`, route => route.fulfill({ status: 500, body: 'no' }))
  await press(page, /Weigh|Measure|Count/)
  await ownPour(page, demo, 'Goes on')
  await press(page, /Weigh|Measure|Count/)
  const on = page.url().split('/').at(-1)!
  await expect.poll(async () => {
    const { events } = await (await page.request.get(`${demo.url}/api/pours/${on}`)).json() as { events?: object[] }
    return events?.length
  }).toBe(2)
  await page.goto(`${demo.url}/shelf`)
  await expect(page.getByText(/Sending 1 entry/)).toBeVisible()
  await page.unroute(`**/api/pours/${stuck}/events`)
  await expect.poll(async () => {
    const { events } = await (await page.request.get(`${demo.url}/api/pours/${stuck}`)).json() as { events?: object[] }
    return events?.length
  }).toBe(2)
})
