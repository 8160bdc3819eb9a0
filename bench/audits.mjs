// @ts-check
import { chromium } from '@playwright/test'
import lighthouse from 'lighthouse'

/**
 * What an external page audit says of accessibility and good practice, screen by screen, on a running demo:
 * BASE=http://127.0.0.1:4780 node bench/audits.mjs
 */
const base = process.env.BASE ?? 'http://127.0.0.1:4780', DEBUG_PORT = 9334
const PAGES = (process.env.PAGES
  ?? '/ /shelf /logbook /logbook/charts /moulds /plan /bench /powders /lab /settings').split(' ')
const answer = await fetch(`${base}/api/demo-entrance`, { method: 'POST', headers: { origin: base } })
const cookie = answer.headers.getSetCookie().map(c => c.split(';')[0]).join('; ')
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-background-networking', '--disable-gpu', `--remote-debugging-port=${DEBUG_PORT}`],
})
/** @type {Record<string, object>} */
const table = {}
for (const path of PAGES) {
  const result = await lighthouse(base + path, {
    port: DEBUG_PORT, logLevel: 'silent', output: 'json', onlyCategories: ['accessibility', 'best-practices'],
    maxWaitForLoad: 12_000, formFactor: 'desktop', throttlingMethod: 'provided', extraHeaders: { cookie },
    screenEmulation: { mobile: false, width: 1280, height: 800, deviceScaleFactor: 1, disabled: false },
  })
  const { categories = {}, audits = {} } = result?.lhr ?? {}
  const score = (/** @type {string} */ id) => Math.round(100 * (categories[id]?.score ?? NaN))
  const refs = Object.values(categories).flatMap(c => c.auditRefs.filter(r => r.weight > 0).map(r => r.id))
  table[path] = {
    accessibility: score('accessibility'), practice: score('best-practices'),
    short: refs.filter(id => (audits[id]?.score ?? 1) < 1).join(', '),
  }
}
await browser.close()
console.table(table)
