// @ts-check
import { chromium } from '@playwright/test'
import lighthouse from 'lighthouse'
import { enter, fill } from './fill.mjs'

/**
 * What a screen costs, on running demos: `node bench/screens.mjs http://127.0.0.1:4780 [another address]`. Each demo
 * gets 20 open pours and 60 casts more (once; KEEP=1 leaves it as it is). Then, in turn, so that before and after stand
 * in one run: how long the main thread is blocked while the screen opens at phone speed (390x844, processor ÷ 4) and
 * its longest task, by the browser's own count and by an external audit, whose recording takes time of its own; and how
 * much of a core it takes while nobody touches it.
 */

const PAGES = (process.env.PAGES ?? '/ /shelf /logbook /moulds /plan /powders /lab').split(' ')
const SETTLES_MS = 5000
const WATCHED_MS = 10_000
const DEBUG_PORT = 9333
const addresses = process.argv.slice(2)

/** @param {string} url @param {string} cookie */
async function audit(url, cookie) {
  const result = await lighthouse(url, {
    port: DEBUG_PORT, logLevel: 'silent', output: 'json', onlyAudits: ['total-blocking-time', 'long-tasks', 'metrics'],
    maxWaitForLoad: 12_000, formFactor: 'mobile', throttlingMethod: 'devtools', extraHeaders: { cookie },
    screenEmulation: { mobile: true, width: 390, height: 844, deviceScaleFactor: 2, disabled: false },
    throttling: {
      cpuSlowdownMultiplier: 4, rttMs: 0, throughputKbps: 0,
      requestLatencyMs: 0, downloadThroughputKbps: 0, uploadThroughputKbps: 0,
    },
  })
  const audits = result?.lhr.audits ?? {}
  const tasks = /** @type {{ items?: { duration: number }[] } | undefined} */ (audits['long-tasks']?.details)?.items ?? []
  const longest = Math.max(0, ...tasks.map(t => t.duration))
  return `${Math.round(audits['total-blocking-time']?.numericValue ?? NaN)} (${Math.round(longest)})`
}

/** The middle of so many openings. */
const OPENINGS = 5, PHONE = { width: 390, height: 844 }
const COUNT_TASKS = `window.tasks = []
new PerformanceObserver(list => tasks.push(...list.getEntries().map(e => [e.startTime, e.duration])))
  .observe({ type: 'longtask', buffered: true })`
/**
 * By the browser's own count, after it was opened once: what is over 50 ms of each task since something was seen.
 * @param {import('@playwright/test').Browser} browser @param {string} url
 * @param {{ name: string, value: string, url: string }[]} cookies
 */
async function opening(browser, url, cookies) {
  const context = await browser.newContext({ viewport: PHONE, isMobile: true, hasTouch: true })
  await context.addCookies(cookies)
  await context.addInitScript({ content: COUNT_TASKS })
  const page = await context.newPage(), session = await context.newCDPSession(page)
  await page.goto(url)
  await page.waitForTimeout(SETTLES_MS)
  await session.send('Emulation.setCPUThrottlingRate', { rate: 4 })
  /** @type {{ blocked: number, longest: number }[]} */
  const all = []
  for (let n = 0; n < OPENINGS; n++) {
    await page.goto(url)
    await page.waitForTimeout(SETTLES_MS)
    const { seen, tasks } = /** @type {{ seen: number, tasks: [number, number][] }} */ (await page.evaluate(
      '({ seen: performance.getEntriesByName("first-contentful-paint")[0]?.startTime ?? 0, tasks })',
    ))
    all.push({
      longest: Math.max(0, ...tasks.map(([, took]) => took)),
      blocked: tasks.reduce((sum, [from, took]) => sum + Math.max(0, from + took - Math.max(seen, from) - 50), 0),
    })
  }
  await context.close()
  const middle = (/** @type {number[]} */ list) => Math.round(list.sort((a, b) => a - b)[Math.floor(OPENINGS / 2)] ?? 0)
  return `${middle(all.map(a => a.blocked))} (${middle(all.map(a => a.longest))})`
}

/** @param {import('@playwright/test').Page} page @param {string} url */
async function idleShare(page, url) {
  const session = await page.context().newCDPSession(page)
  await session.send('Performance.enable')
  const busySeconds = async () =>
    (await session.send('Performance.getMetrics')).metrics.find(m => m.name === 'TaskDuration')?.value ?? 0
  await page.goto(url)
  await page.waitForTimeout(SETTLES_MS)
  const before = await busySeconds()
  await page.waitForTimeout(WATCHED_MS)
  return `${(100_000 * (await busySeconds() - before) / WATCHED_MS).toFixed(1)} %`
}

const flags = [
  ...(process.getuid?.() === 0 ? ['--no-sandbox'] : []), '--disable-background-networking',
  `--remote-debugging-port=${DEBUG_PORT}`,
]
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: flags })
/** @type {Record<string, Record<string, string>>} */
const table = {}
for (const [n, base] of addresses.entries()) {
  const cookie = await enter(base)
  if (!process.env.KEEP) await fill(base, cookie)
  const cookies = cookie.split('; ').map((c) => {
    const [name = '', value = ''] = c.split(/=(.*)/s)
    return { name, value, url: base }
  })
  for (const path of PAGES) {
    const row = table[path] ??= {}
    row[`${n + 1} blocked ms (longest)`] = await opening(browser, base + path, cookies)
    if (!process.env.NO_AUDIT) row[`${n + 1} by the audit`] = await audit(base + path, cookie)
  }
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  await page.context().addCookies(cookies)
  if (!process.env.NO_IDLE)
    for (const path of PAGES) (table[path] ??= {})[`${n + 1} idle`] = await idleShare(page, base + path)
  await page.close()
}
await browser.close()
console.log(addresses.map((a, n) => `${n + 1}: ${a}`).join('\n'))
console.table(table)
