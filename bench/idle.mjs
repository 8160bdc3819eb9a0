// @ts-check
import { chromium } from '@playwright/test'

/**
 * What a screen costs while nobody touches it: `node bench/idle.mjs http://127.0.0.1:4780 [another address]`, each a
 * running demo. Seconds of work on the page's main thread in ten seconds, as a share of a core; several addresses are
 * measured in turn, so that before and after stand in one run.
 */

const PAGES = ['/', '/shelf', '/logbook', '/moulds', '/plan', '/powders']
const SETTLES_MS = 5000
const WATCHED_MS = 10_000

const addresses = process.argv.slice(2)
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [...(process.getuid?.() === 0 ? ['--no-sandbox'] : []), '--disable-background-networking'],
})

/** @param {import('@playwright/test').CDPSession} session */
async function busySeconds(session) {
  const { metrics } = await session.send('Performance.getMetrics')
  return metrics.find(m => m.name === 'TaskDuration')?.value ?? 0
}

/** @type {Record<string, Record<string, string>>} */
const table = {}
for (const address of addresses) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  await page.goto(address)
  await page.getByRole('button', { name: /demo/i }).first().click()
  await page.getByRole('heading', { level: 1 }).waitFor()
  const session = await page.context().newCDPSession(page)
  await session.send('Performance.enable')
  for (const path of PAGES) {
    await page.goto(address + path)
    await page.waitForTimeout(SETTLES_MS)
    const before = await busySeconds(session)
    await page.waitForTimeout(WATCHED_MS)
    const share = 100_000 * (await busySeconds(session) - before) / WATCHED_MS
    table[path] = { ...table[path], [address]: `${share.toFixed(1)} %` }
  }
  await page.close()
}
await browser.close()
console.table(table)
