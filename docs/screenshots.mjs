// @ts-check
import { chromium } from '@playwright/test'
import { fileURLToPath } from 'node:url'

/** Pictures of the main views from a freshly made demo: bin/start --fresh-demo, then BASE=http://127.0.0.1:4780 npm run screenshots */
const base = process.env.BASE ?? 'http://127.0.0.1:4780'
const DESK = { width: 1280, height: 800 }, PHONE = { width: 390, height: 844 }
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-background-networking', '--disable-quic', '--use-angle=swiftshader', '--enable-unsafe-swiftshader'] })
const page = await browser.newPage({ viewport: DESK, reducedMotion: 'reduce' })
/** @param {string} name */
const shoot = async (name) => {
  await page.waitForLoadState('networkidle').catch(() => {})
  await page.waitForTimeout(800) // ranges and fonts settle
  await page.screenshot({ path: fileURLToPath(new URL(`./screenshots/${name}.png`, import.meta.url)) })
}
await page.goto(base)
await page.getByRole('button', { name: 'Enter the demo workshop' }).click()
await page.getByRole('heading', { name: 'Needs a hand' }).waitFor()
await shoot('today')
for (const name of ['shelf', 'logbook', 'moulds', 'powders']) {
  await page.goto(`${base}/${name}`)
  await shoot(name)
}
await page.goto(`${base}/logbook`)
await page.getByRole('link', { name: /Six lantern bases/ }).last().click()
await shoot('pour')
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
await shoot('model')
await page.goto(`${base}/lab`)
await shoot('lab')
await page.goto(`${base}/lab/sayings`)
await shoot('sayings')
await page.goto(`${base}/plan`)
await page.getByRole('link', { name: /Six lantern bases/ }).click()
await shoot('plan')
// One pour on the bench, into the soak.
await page.getByRole('button', { name: 'Take to the bench' }).click()
for (const instruction of ['Weigh water, then powder', 'Sift the powder in', 'Let it soak']) {
  await page.locator('[data-settled=true]').waitFor()
  await page.locator('body').press('Space')
  await page.getByRole('heading', { level: 2, name: instruction }).waitFor()
  await page.request.post(`${base}/api/clock`, { data: { jump: instruction.startsWith('Sift') ? 155 : 45 }, headers: { origin: base } })
  await page.waitForTimeout(900)
}
await shoot('bench')
await page.setViewportSize(PHONE)
await shoot('bench-phone')
await page.goto(`${base}/shelf`)
await shoot('shelf-phone')
await page.goto(`${base}/lab`)
await shoot('lab-phone')
await browser.close()
