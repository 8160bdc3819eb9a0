// @ts-check
import { gzipSync } from 'node:zlib'
import { chromium } from '@playwright/test'

/**
 * The door at phone speed, on a running product: BASE=http://127.0.0.1:4780 node bench/door.mjs. 390x844, processor ÷ 4,
 * 150 ms and 1.6 Mb/s; nothing kept from before. First paint with contents; interactive, that is, a press changes the
 * answer; the script in kB; and a new user's way to the grams: acts and seconds, as fast as the page lets a hand go.
 */
const base = process.env.BASE ?? 'http://127.0.0.1:4780', RUNS = 5
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-background-networking', '--disable-quic'],
})
/** @type {{ paint: number, ready: number, way: number, press: number, script: number, requests: number }[]} */
const all = []
for (let n = 0; n < RUNS; n++) {
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 }, isMobile: true, hasTouch: true, serviceWorkers: 'block',
  })
  const page = await context.newPage(), session = await context.newCDPSession(page)
  await session.send('Network.enable')
  await session.send('Network.emulateNetworkConditions', {
    offline: false, latency: 150, downloadThroughput: 1.6e6 / 8, uploadThroughput: 0.75e6 / 8,
  })
  await session.send('Emulation.setCPUThrottlingRate', { rate: 4 })
  let script = 0, requests = 0
  page.on('response', async (answer) => {
    requests++
    if (answer.request().resourceType() === 'script') script += gzipSync(await answer.body()).length
  })
  const began = Date.now()
  await page.goto(`${base}/door`, { waitUntil: 'commit' })
  const heading = page.getByRole('heading', { level: 2, name: /^Mix/ })
  await heading.waitFor()
  // The button answers as soon as the page is taken over.
  await page.evaluate(() => new Promise((done) => {
    const look = () => {
      const before = document.querySelector('h2')?.textContent
      document.querySelectorAll('.kinds button')[1]?.dispatchEvent(new MouseEvent('click', { bubbles: true }))
      setTimeout(() => document.querySelector('h2')?.textContent === before ? look() : done(undefined), 10)
    }
    look()
  }))
  const ready = Date.now() - began
  const paint = await page.evaluate(() => performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? NaN)
  const press = await page.evaluate(async () => {
    const took = []
    for (const i of [2, 0, 4, 8, 0]) {
      const at = performance.now()
      document.querySelectorAll('.kinds button')[i]?.dispatchEvent(new MouseEvent('click', { bubbles: true }))
      for (let k = 0; k < 20; k++) await Promise.resolve()
      document.body.getBoundingClientRect()
      took.push(performance.now() - at)
    }
    return Math.max(...took)
  })
  await page.getByRole('button', { name: 'Tile', exact: true }).tap()
  await page.getByRole('button', { name: /^Wall tile/ }).tap()
  await page.getByLabel('How many?').fill('6')
  await page.getByLabel('How many?').blur()
  await page.getByLabel('Which powder?').selectOption('gypsum-cement')
  await page.getByRole('heading', { level: 2, name: /for six tiles$/ }).waitFor()
  all.push({ paint, ready, way: Date.now() - began, press, script, requests })
  await context.close()
}
await browser.close()
/** @param {(run: typeof all[number]) => number} of */
const middle = of => all.map(of).sort((a, b) => a - b)[RUNS >> 1] ?? NaN
console.log(`door at phone speed, median of ${RUNS}: first contents after ${middle(r => r.paint).toFixed(0)} ms, `
  + `interactive after ${middle(r => r.ready)} ms, slowest press ${middle(r => r.press).toFixed(0)} ms, `
  + `${(middle(r => r.script) / 1000).toFixed(0)} kB of script, ${middle(r => r.requests)} requests`)
console.log(`the grams of six tiles, from nothing: 4 acts, ${(middle(r => r.way) / 1000).toFixed(1)} s by script`)
