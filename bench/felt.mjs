// @ts-check
import { chromium } from '@playwright/test'
import { enter, fill } from './fill.mjs'

/**
 * How soon screens follow a hand, on a running demo: BASE=http://127.0.0.1:4780 node bench/felt.mjs. The Lab from the
 * input event of a lever to the frame that shows it; a plan from a keystroke, and Today from a press on its name, until
 * all of it is worked out and laid out. FILL=1 first adds 20 open pours and 60 casts, once; then what Today takes to be
 * drawn, from a press that turns it from a list into a picture.
 */
const base = process.env.BASE ?? 'http://127.0.0.1:4780'
if (process.env.FILL) await fill(base, await enter(base))
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-background-networking', '--disable-quic'],
})
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
await page.goto(`${base}/sign-in`)
await page.getByRole('button', { name: 'Enter the demo workshop' }).click()
await page.getByRole('region', { name: 'On the table' }).waitFor()
await page.goto(`${base}/lab`)
await page.getByRole('slider', { name: 'Water per 100 powder' }).waitFor()
const times = await page.evaluate(async () => {
  const slider
    /** @type {HTMLInputElement} */ = (document.querySelector('input[type=range][aria-label="Water per 100 powder"]'))
  const cell = (/** @type {string} */ what) =>
    document.querySelector(`tbody tr:nth-child(6) td:last-child .${what}`)?.textContent ?? ''
  const frame = () => new Promise(done => requestAnimationFrame(() => done(undefined)))
  const centre = [], ranges = []
  for (let i = 0; i < 20; i++) {
    const value = cell('value')
    slider.value = String(0.62 + (i % 2) * 0.16 + i * 0.001)
    const began = performance.now()
    slider.dispatchEvent(new Event('input', { bubbles: true }))
    while (cell('value') === value) await frame()
    centre.push(performance.now() - began)
    while (cell('range') === '') await frame()
    ranges.push(performance.now() - began)
    await new Promise(done => setTimeout(done, 400))
  }
  const middle = (/** @type {number[]} */ list) => list.sort((a, b) => a - b)[list.length >> 1]
  return { centre: middle(centre), ranges: middle(ranges), longest: Math.max(...centre) }
})
console.log(
  `lab, one lever: centre values on screen after ${times.centre?.toFixed(0)} ms (longest ${
    times.longest.toFixed(0)
  }), ranges after ${times.ranges?.toFixed(0)} ms, medians of 20`,
)

const NUMBERS = ['3', '5', '4', '7', '6', '9', '8', '11', '10', '12']
/** @param {number[]} list */
const middleOf = list => [...list].sort((a, b) => a - b)[list.length >> 1]?.toFixed(1)

await page.goto(`${base}/plan`)
await page.getByRole('main').locator('a[href^="/plan/"]').filter({ hasText: /lantern/i }).first().click()
const count = page.getByRole('textbox', { name: /^How many: / }).first()
await count.waitFor()
await page.waitForTimeout(2000)
const strokes = await count.evaluate(async (field, numbers) => {
  const input = /** @type {HTMLInputElement} */ (field), took = []
  const settled = () => new Promise(done => setTimeout(done, 1500))
  for (const n of numbers) {
    const began = performance.now()
    Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')?.set?.call(input, n)
    input.dispatchEvent(new Event('input', { bubbles: true }))
    input.dispatchEvent(new Event('change', { bubbles: true }))
    // All that was queued by it, and its layout.
    for (let k = 0; k < 20; k++) await Promise.resolve()
    document.body.getBoundingClientRect()
    took.push(performance.now() - began)
    await settled()
  }
  return took
}, [...NUMBERS, ...NUMBERS, ...NUMBERS])
/** The first are worked out by code that no one has run yet. */
const COLD = 4, warm = strokes.slice(COLD)
console.log(`plan, one keystroke: worked out and laid out in ${middleOf(warm)} ms (longest ${Math.max(...warm).toFixed(1)}), median of ${
  warm.length} after the first ${COLD}, which took ${strokes.slice(0, COLD).map(ms => ms.toFixed(0)).join(', ')} ms`)

const openings = []
for (let n = 0; n < 8; n++) {
  await page.getByRole('link', { name: 'Powders', exact: true }).first().click()
  await page.getByRole('heading', { name: 'Powders', level: 1 }).waitFor()
  await page.waitForTimeout(800)
  openings.push(await page.getByRole('link', { name: 'Today', exact: true }).first().evaluate(async (link) => {
    const tick = () => new Promise((done) => {
      const channel = new MessageChannel()
      channel.port1.onmessage = done
      channel.port2.postMessage(0)
    })
    const began = performance.now(), there = () => document.querySelector('[aria-labelledby="shelf-head"] li')
    link.dispatchEvent(new MouseEvent('click', { bubbles: true, cancelable: true }))
    while (!there()) await tick()
    document.body.getBoundingClientRect()
    return performance.now() - began
  }))
  await page.waitForTimeout(500)
}
const things = await page.getByRole('main').locator('svg').count()
console.log(`Today, ${things} pictures: there and laid out ${middleOf(openings)} ms after the press, median of ${openings.length}`)

const drawn = []
for (let n = 0; n < 10; n++) {
  await page.getByRole('button', { name: 'As a list' }).click()
  await page.waitForTimeout(500)
  drawn.push(await page.getByRole('button', { name: 'As a picture' }).evaluate(async (button) => {
    const began = performance.now()
    button.dispatchEvent(new MouseEvent('click', { bubbles: true, cancelable: true }))
    for (let k = 0; k < 20; k++) await Promise.resolve()
    document.body.getBoundingClientRect()
    return performance.now() - began
  }))
}
const there = await page.getByRole('main').locator('svg:visible').count()
console.log(`Today drawn with ${there} pictures: ${middleOf(drawn)} ms (longest ${Math.max(...drawn).toFixed(0)}), median of ${drawn.length}`)
await browser.close()
