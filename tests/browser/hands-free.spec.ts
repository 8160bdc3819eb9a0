import type { Page } from '@playwright/test'
import pg from 'pg'
import { AGAIN, enterDemo, expect, later, ownPour, press, test } from './workshop'

/**
 * Read at two metres: capitals of at least 16 minutes of arc (ISO 9241-303, from memory) are 9.3 mm high there. A CSS
 * pixel is taken as 0.26 mm, that of a
 * screen without magnification, and a capital as 0.69 of the type's size.
 */
const READABLE_PX = 9.3 / 0.26 / 0.69
/**
 * Half of that is read by whoever leans in; nothing that is needed may be smaller than print at arm's length, 16 px.
 */
const LEAST_PX = 16

async function sizes(page: Page) {
  return page.evaluate(() => {
    const px = (e: Element) => Number.parseFloat(getComputedStyle(e).fontSize)
    const go = document.querySelector('button.go')!.getBoundingClientRect()
    const seen = (selector: string) => [...document.querySelectorAll(selector)].map(px)
    return {
      instruction: px(document.querySelector('h2')!),
      counting: seen('.elapsed .now'),
      needed: [
        ...seen('.detail'),
        ...seen('button.go'),
        ...seen('.open'),
        ...seen('.within'),
        ...seen('.sign-row button'),
      ],
      go: { top: go.top, bottom: go.bottom, height: go.height },
      view: { width: innerWidth, height: innerHeight },
      wide: document.documentElement.scrollWidth,
    }
  })
}

for (
  const [name, view] of [['a desk screen', { width: 1280, height: 800 }], ['a tablet', {
    width: 1024,
    height: 768,
  }]] as const
) {
  test(`every state of the bench is read from two metres on ${name}`, async ({ page, demo }) => {
    await page.setViewportSize(view)
    await enterDemo(page, demo)
    await ownPour(page, demo, `Two metres, ${name}`, { bag: undefined })
    const check = async () => {
      const s = await sizes(page), state = await page.getByRole('heading', { level: 2 }).innerText()
      expect.soft(s.instruction, state).toBeGreaterThanOrEqual(READABLE_PX)
      for (const c of s.counting) expect.soft(c, `counting in “${state}”`).toBeGreaterThanOrEqual(36)
      for (const n of s.needed) expect.soft(n, `smallest in “${state}”`).toBeGreaterThanOrEqual(LEAST_PX)
      expect.soft(s.go.bottom, `the one button of “${state}” is on the screen`).toBeLessThanOrEqual(s.view.height)
      expect.soft(s.go.height, state).toBeGreaterThanOrEqual(76)
      expect.soft(s.wide, `“${state}” is not wider than the screen`).toBeLessThanOrEqual(s.view.width)
    }
    await check()
    for (
      const [next, seconds] of [
        ['Weigh water, then powder', 0],
        ['Sift the powder in', 90],
        ['Let it soak', 120],
        ['Stir under the surface', 120],
        ['Tap the bucket, then pour', 60],
        ['Clean up while it sets', 60],
        ['Weigh water, then powder', 0],
        ['Sift the powder in', 90],
        ['Let it soak', 120],
        ['Stir under the surface', 120],
        ['Tap the bucket, then pour', 60],
        ['Clean up while it sets', 60],
        ['Leave it alone', 0],
      ] as const
    ) {
      await press(page, next)
      await check()
      if (seconds > 0) await later(page, demo, seconds)
    }
    await page.getByRole('button', { name: 'Bright' }).click()
    await check()
    await page.locator('body').press('0')
    await expect(page.getByRole('dialog')).toBeVisible()
    expect(
      await page.evaluate(() =>
        Math.min(
          ...[...document.querySelectorAll('[role=dialog] button')].filter(b => b.textContent!.trim() !== '').map(b =>
            Number.parseFloat(getComputedStyle(b).fontSize),
          ),
        ),
      ),
    ).toBeGreaterThanOrEqual(LEAST_PX)
  })
}

test('cues can come early, and where the browser understands speech on this machine the bench listens to it', async ({ page, demo }) => {
  // A browser that understands speech by itself: the test says what it heard.
  await page.addInitScript(() => {
    class Speech {
      static available = async ({ processLocally }: { processLocally: boolean }) =>
        processLocally ? 'available' : 'unavailable'

      processLocally = false
      onresult: ((e: object) => void) | null = null
      onend: (() => void) | null = null
      start() {
        Object.assign(globalThis, {
          hear: (transcript: string) =>
            this.onresult?.({ resultIndex: 0, results: [Object.assign([{ transcript }], { isFinal: true })] }),
          local: this.processLocally,
        })
      }

      abort() {}
    }
    Object.assign(globalThis, { SpeechRecognition: Speech })
  })
  await enterDemo(page, demo)
  await ownPour(page, demo, 'Spoken to')
  await page.getByRole('button', { name: 'Set up' }).click()
  await page.getByRole('button', { name: '30 s early' }).click()
  await page.getByRole('button', { name: 'Listen' }).click()
  await expect(page.getByText('Say “bench, next”')).toBeVisible()
  const hear = (words: string) =>
    page.evaluate(w => (globalThis as unknown as { hear: (words: string) => void }).hear(w), words)
  await hear('we are next I think')
  await hear('bench next')
  await expect(page.getByRole('heading', { level: 2, name: 'Weigh water, then powder' })).toBeVisible()
  expect(await page.evaluate(() => (globalThis as unknown as { local: boolean }).local)).toBe(true)
  await expect(page.locator('[data-settled=true]')).toBeVisible()
  await hear('Bench, next.')
  await expect(page.getByRole('heading', { level: 2, name: 'Sift the powder in' })).toBeVisible()
  await hear('bench islands stay dry')
  await expect(page.getByRole('button', { name: 'Islands stay dry ✓' })).toBeVisible()
  await hear('bench back')
  await expect(page.getByRole('button', { name: 'Islands stay dry ✓' })).toHaveCount(0)
  await press(page, 'Let it soak')
  // The soak of two minutes is told half a minute before it ends.
  await later(page, demo, 92)
  await expect(page.getByRole('alert')).toHaveText('In 30 seconds: Bucket 1, soaked. Start stirring.')
})

test('the database dies in the middle of a pour: the bench goes on, and everything is there when it is back', async ({ page, demo }) => {
  await enterDemo(page, demo)
  await ownPour(page, demo, 'Database gone')
  const name = new URL(demo.databaseUrl).pathname.slice(1),
    admin = new pg.Client({ connectionString: `${process.env.TEST_DATABASE_BASE}postgres` })
  await admin.connect()
  try {
    await press(page, 'Weigh water, then powder')
    await expect(page.getByText(/^\s*sending/)).toHaveCount(0)
    await admin.query(`alter database ${name} allow_connections false`)
    await admin.query('select pg_terminate_backend(pid) from pg_stat_activity where datname = $1', [name])
    await press(page, 'Sift the powder in')
    await press(page, 'Let it soak')
    await expect(page.getByText(/(sending|kept here) \(2\)/)).toBeVisible()
    await admin.query(`alter database ${name} allow_connections true`)
    await expect(page.getByText(/last heard|sending/)).toHaveCount(0)
  }
  finally {
    await admin.query(`alter database ${name} allow_connections true`)
    await admin.end()
  }
  await page.reload()
  await expect(page.getByRole('heading', { level: 2, name: 'Let it soak' })).toBeVisible()
  const { events } = await (await page.request.get(page.url().replace('/bench/', '/api/pours/'), AGAIN)).json() as {
    events: { data: { stage: string } }[]
  }
  expect(events.map(e => e.data.stage)).toEqual(['ready', 'weigh', 'sift', 'soak'])
})
