// @ts-check
import { chromium } from '@playwright/test'

/**
 * How soon the Lab follows a lever, from the input event to the frame that shows it: BASE=http://127.0.0.1:4780 node
 * bench/felt.mjs
 */
const base = process.env.BASE ?? 'http://127.0.0.1:4780'
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-background-networking', '--disable-quic'],
})
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
await page.goto(base)
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
await browser.close()
