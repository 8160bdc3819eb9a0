// @ts-check
import { chromium } from '@playwright/test'
import { fileURLToPath } from 'node:url'

/**
 * Pictures of the main views from a freshly made demo: bin/start --fresh-demo, then BASE=http://127.0.0.1:4780 npm run
 * screenshots
 */
const base = process.env.BASE ?? 'http://127.0.0.1:4780'
const DESK = { width: 1280, height: 800 }, PHONE = { width: 390, height: 844 }
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-background-networking',
    '--disable-quic',
    '--use-angle=swiftshader',
    '--enable-unsafe-swiftshader',
  ],
})
const page = await browser.newPage({ viewport: DESK, reducedMotion: 'reduce' })
/** @param {string} name */
const shoot = async (name) => {
  await page.waitForLoadState('networkidle').catch(() => {})
  await page.waitForTimeout(800) // ranges and fonts settle
  await page.screenshot({ path: fileURLToPath(new URL(`./screenshots/${name}.png`, import.meta.url)) })
}
await page.goto(`${base}/door`)
await shoot('door')
await page.goto(`${base}/sign-in`)
await page.getByRole('button', { name: 'Enter the demo workshop' }).click()
await page.getByRole('region', { name: 'On the table' }).waitFor()
await shoot('today')
for (const name of ['shelf', 'logbook', 'moulds', 'powders']) {
  await page.goto(`${base}/${name}`)
  await shoot(name)
}
await page.goto(`${base}/plan`)
await page.getByRole('link', { name: /Garden tiles for the open day/ }).click()
await page.getByRole('region', { name: /What would/ }).waitFor()
await shoot('order')
await page.goto(`${base}/logbook`)
await page.getByRole('link', { name: /Six lantern bases/ }).last().click()
await shoot('pour')
const { rows } = await (await page.request.get(`${base}/api/logbook/pours?find=lantern%20bases`)).json()
await page.goto(`${base}/jobs`)
await page.getByRole('link', { name: /a mould in two halves/ }).click()
await page.getByRole('region', { name: 'What is next' }).waitFor()
await shoot('job')
await page.goto(`${base}/practice/pottery-20`)
await page.getByRole('button', { name: /^Water in/ }).click()
for (const [x, y] of [[0.3, 0.3], [0.6, 0.35], [0.45, 0.6], [0.7, 0.65], [0.3, 0.7]]) {
  const box = await page.getByRole('img', { name: /^The bucket from above/ }).boundingBox()
  if (!box) throw new Error('no bucket')
  for (let i = 0; i < 3; i++) await page.mouse.click(box.x + (x ?? 0) * box.width, box.y + (y ?? 0) * box.height)
  await page.waitForTimeout(1500)
}
await shoot('practice')
await page.goto(`${base}/classes`)
await page.getByRole('link', { name: 'Evening class' }).click()
await page.getByRole('link', { name: 'The code, on the big screen' }).click()
await page.getByText('9 seats').waitFor()
await shoot('class')
await page.goto(`${base}/moulds`)
await page.getByRole('link', { name: 'Lantern base' }).click()
await shoot('mould')
await page.goto(`${base}/moulds/model`)
await page.getByRole('button', { name: 'a bell-pull' }).click()
await page.getByRole('button', { name: /^Millimetres/ }).click()
await page.getByRole('button', { name: 'Find the best way to pull' }).click()
await page.getByRole('button', { name: 'Rigid mould' }).click()
await page.getByRole('button', { name: 'A hole at the highest place' }).click()
await page.getByText(/of air stays/).waitFor()
await page.getByRole('button', { name: 'Try covering and tipping it' }).click()
await page.getByText(/tip it \d+/).waitFor()
await page.getByLabel('Cut open').fill('0.5')
await page.getByLabel('Filled to').fill('0.45')
await page.evaluate(() => scrollTo(0, 0))
await shoot('model')
await page.goto(`${base}/moulds/print`)
await page.getByRole('button', { name: /a boot print/ }).click()
await page.getByRole('button', { name: 'Four corners of a rectangle' }).click()
await page.getByRole('button', { name: 'Trace an outline' }).click()
/**
 * Drags a mark of the photo to a place in it. @param {string} group @param {readonly (readonly [number, number])[]}
 * places
 */
const mark = async (group, places) => {
  for (const [i, [x, y]] of places.entries()) {
    const grip = await page.getByRole('button', { name: new RegExp(`^${group}, mark ${i + 1},`) }).boundingBox(),
      photo = await page.getByRole('group', { name: 'The photo with its marks' }).boundingBox()
    if (!grip || !photo) throw new Error('no photo')
    await page.mouse.move(grip.x + grip.width / 2, grip.y + grip.height / 2)
    await page.mouse.down()
    await page.mouse.move(photo.x + x * photo.width / 1600, photo.y + y * photo.width / 1600, { steps: 2 })
    await page.mouse.up()
  }
}
await mark('Rectangle', [[1124.6, 391.4], [1535.1, 396.2], [1576.6, 684.9], [1149.7, 687]])
await mark('Length', [[252.9, 433.2], [1093.9, 648.5]])
await mark('The print', [[262, 396], [872, 441], [1080, 620], [804, 732]])
for (const [label, size] of [['Its upper side in the photo', '148'], ['Its right side in the photo', '105']]) {
  await page.getByRole('textbox', { name: label }).fill(size ?? '')
  await page.keyboard.press('Tab')
}
await page.getByRole('heading', { name: 'A print by photo' }).click()
await shoot('print')
await page.goto(`${base}/lab`)
await shoot('lab')
await page.goto(`${base}/plan`)
await page.getByRole('link', { name: /Six lantern bases/ }).click()
await shoot('plan')
// One pour on the bench, into the soak.
await page.getByRole('button', { name: 'Take to the bench' }).click()
for (const instruction of ['Weigh water, then powder', 'Sift the powder in', 'Let it soak']) {
  await page.locator('[data-settled=true]').waitFor()
  await page.locator('body').press('Space')
  await page.getByRole('heading', { level: 2, name: instruction }).waitFor()
  await page.request.post(`${base}/api/clock`, {
    data: { jump: instruction.startsWith('Sift') ? 155 : 45 },
    headers: { origin: base },
  })
  await page.waitForTimeout(900)
}
await shoot('bench')
await page.setViewportSize(PHONE)
await shoot('bench-phone')
await page.setViewportSize(DESK)
// On to setting, sooner than planned.
for (
  const [instruction, jump]
    of /** @type {const} */ ([['Stir under the surface', 110], ['Tap the bucket, then pour', 60], [
      'Clean up while it sets',
      150,
    ]])
) {
  await page.locator('[data-settled=true]').waitFor()
  await page.locator('body').press('Space')
  await page.getByRole('heading', { level: 2, name: instruction }).waitFor()
  await page.request.post(`${base}/api/clock`, { data: { jump }, headers: { origin: base } })
  await page.waitForTimeout(900)
}
await page.getByRole('button', { name: 'Webbing' }).click()
await page.request.post(`${base}/api/clock`, { data: { jump: 150 }, headers: { origin: base } })
await page.waitForTimeout(900)
await page.getByRole('button', { name: 'Gloss gone' }).click()
await page.getByText(/^It sets about/).waitFor()
const { token } =
  await (await page.request.post(`${base}/api/links`, {
    data: { kind: 'wall', name: 'Evening class' },
    headers: { origin: base },
  })).json()
await page.goto(`${base}/wall/${token}`)
await page.getByRole('article').first().waitFor()
await shoot('wall')
await browser.close()
