// @ts-check
import { readdirSync, readFileSync, statSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import { chromium } from '@playwright/test'

/**
 * JavaScript that the landing screen really loads, gzipped, from a running product: BASE=http://127.0.0.1:4780 node
 * bench/landing.mjs
 * Target 250 kB. Counts what the browser fetched, once each.
 */
const base = process.env.BASE ?? 'http://127.0.0.1:4780'
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-background-networking', '--disable-quic'],
})
const page = await browser.newPage()
/** @type {Map<string, number>} */
const scripts = new Map()
page.on('response', async (response) => {
  if (response.request().resourceType() === 'script')
    scripts.set(response.url(), gzipSync(await response.body()).length)
})
await page.goto(`${base}/sign-in`)
await page.getByRole('button', { name: 'Enter the demo workshop' }).click()
await page.getByRole('region', { name: 'On the table' }).waitFor()
scripts.clear()
await page.reload()
await page.getByRole('region', { name: 'On the table' }).waitFor()
await page.waitForLoadState('networkidle')
const total = [...scripts.values()].reduce((a, b) => a + b, 0)
console.log(`landing screen: ${scripts.size} scripts, ${(total / 1000).toFixed(0)} kB gzipped`)
await browser.close()
if (process.env.EACH) for (const [url, n] of [...scripts].sort((a, b) => b[1] - a[1])) console.log(`${(n / 1000).toFixed(1)} kB ${url}`)
const folder = new URL('../.output/public/_nuxt/', import.meta.url)
const all = readdirSync(folder).filter(f => f.endsWith('.js'))
console.log(
  `whole client: ${all.length} scripts, ${
    (all.reduce((n, f) => n + gzipSync(readFileSync(new URL(f, folder))).length, 0) / 1000).toFixed(0)
  } kB gzipped, ${(all.reduce((n, f) => n + statSync(new URL(f, folder)).size, 0) / 1000).toFixed(0)} kB plain`,
)
