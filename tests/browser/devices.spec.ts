import { spawn, type ChildProcess } from 'node:child_process'
import type { Page } from '@playwright/test'
import { AGAIN, enterDemo, expect, expectAccessible, ownPour, press, test, turnTo } from './workshop'

/**
 * The stand-ins as they ship, on the addresses that the page may talk to; this file alone uses them, since an address
 * has room for one.
 */
const ADDRESS = {
  scale: 'http://127.0.0.1:4795',
  thermometer: 'http://127.0.0.1:4796',
  room: 'http://127.0.0.1:4797',
} as const
const acting = (device: keyof typeof ADDRESS) => (what: object) =>
  fetch(`${ADDRESS[device]}/act`, { method: 'POST', body: JSON.stringify(what) })
const act = acting('scale')
async function standIn(device: keyof typeof ADDRESS): Promise<ChildProcess> {
  const [program, args] = device === 'thermometer'
    ? ['node_modules/.bin/tsx', ['--tsconfig', 'tsconfig.tools.json', 'devices/thermometer.ts']] as const
    : [process.execPath, [`devices/${device}.mjs`]] as const
  // In a group of its own: tsx starts another process, which must end with it.
  const child = spawn(program, [...args], { stdio: ['ignore', 'pipe', 'inherit'], detached: true })
  await new Promise<void>((done, fail) => {
    child.stdout!.once('data', () => done())
    child.once('exit', () => fail(new Error(`The ${device} could not stand in: is its address taken?`)))
  })
  return child
}
const end = (child: ChildProcess) => process.kill(-child.pid!, 'SIGTERM')
/** @param means what the big button must say first: on a busy machine the scale may have gone unheard for a moment. */
async function pedal(page: Page, means: string | RegExp = /./): Promise<void> {
  await expect(page.locator('[data-settled=true]')).toHaveText(means)
  await page.locator('body').press('Space')
}
/** Chooses devices by keyboard. */
async function setUp(page: Page, names: readonly string[]): Promise<void> {
  await page.getByRole('button', { name: 'Set up' }).press('Enter')
  for (const name of names) await page.getByRole('button', { name: new RegExp(`^${name}`) }).press('Enter')
  for (const name of names) await expect(page.getByRole('button', { name: `${name} heard` })).toBeVisible()
  await page.getByRole('button', { name: 'Set up' }).press('Enter')
  await page.getByRole('button', { name: 'Set up' }).blur()
}

test('weighed by a scale that streams and by one pedal alone: tare, water, powder, with the scale going off in the middle', async ({ page, demo }) => {
  const scale = await standIn('scale')
  try {
    await enterDemo(page, demo)
    await ownPour(page, demo, 'By pedal alone')
    await pedal(page)
    await expect(page.getByRole('heading', { level: 2, name: 'Weigh water, then powder' })).toBeVisible()
    await setUp(page, ['Scale'])
    const go = page.locator('button.go')
    await expect(go).toHaveText('Bucket on the scale: tare')
    const grams = async (what: string) =>
      Number((await page.locator(`.part.${what} .target`).innerText()).replace(/[^\d.]/g, ''))
    const [water, powder] = [await grams('water'), await grams('powder')]

    await act({ put: 640 })
    await expect(page.locator('.scale .net')).toHaveText(/^64\d g$/)
    await pedal(page, 'Bucket on the scale: tare')
    await expect(go).toHaveText(/^Pour in .+ of water$/)
    await act({ put: water * 0.5, within: 1 })
    await expect(page.getByText(/^\s*\d+ g more\s*$/)).toBeVisible()
    // Pressed too early it says so; nothing is taken.
    await pedal(page)
    await expect(page.getByText(/Press again to go on as it is\./)).toBeVisible()
    await act({ put: water * 0.5, within: 1 })
    await expect(page.getByText('That is it')).toBeVisible()
    await expect(go).toHaveText(/^Take .+ g of water$/)
    await expectAccessible(page)
    await pedal(page, /^Take .+ g of water$/)
    await expect(go).toHaveText('Dry bucket on the scale: tare')
    await expect(page.getByLabel('Water went in')).toHaveValue(/ g$/)

    await pedal(page, 'Dry bucket on the scale: tare')
    await expect(go).toHaveText(/^Pour in .+ of powder$/)
    await act({ put: powder - 100, within: 1 })
    await expect(page.getByText(/(99|100|101) g more\s*$/)).toBeVisible()
    // It switches itself off and comes back at nothing; the total goes on.
    await act({ off: true })
    await expect(page.getByText(/^\s*The scale is not heard/)).toBeVisible()
    // What the pedal meant is not to be had now; it does not skip the weighing either.
    await pedal(page, 'Go on without the scale')
    await expect(page.getByText(/^\s*The scale is not heard.*Press again to go on as it is\.\s*$/)).toBeVisible()
    await act({ on: true })
    await act({ put: 140, within: 1 })
    await expect(page.getByText(/^\s*Over by (39|40|41) g\s*$/)).toBeVisible()
    await pedal(page)
    await expect(page.getByText(/^\s*That is \d+\. Add \d+ g of water to come back to \d+\.\s*$/)).toBeVisible()
    await expect(go).toHaveText('Start sifting')
    await pedal(page)
    await expect(page.getByRole('heading', { level: 2, name: 'Sift the powder in' })).toBeVisible()
  }
  finally {
    end(scale)
  }
})

test('a whole pour by pedal and keys alone, with scale, thermometer and room sensor: the network goes for five minutes, the server dies twice, and the logbook has every entry once', async ({ page, context, demo }) => {
  test.setTimeout(1_200_000)
  const devices = await Promise.all([standIn('scale'), standIn('thermometer'), standIn('room')])
  const pace = async (rate: number) =>
    expect((await page.request.post(`${demo.url}/api/clock`, {
      data: { rate },
      headers: { origin: demo.url },
      ...AGAIN,
    })).ok())
      .toBe(true)
  try {
    await acting('room')({ celsius: 14, humidity: 0.6 })
    await enterDemo(page, demo)
    await ownPour(page, demo, 'By foot')
    const at = page.url()
    await setUp(page, ['Scale', 'Thermometer', 'Room sensor'])
    await press(page, 'Weigh water, then powder')
    const grams = async (what: string) =>
      Number((await page.locator(`.part.${what} .target`).innerText()).replace(/[^\d.]/g, ''))
    const weigh = async () => {
      for (const part of ['water', 'powder'] as const) {
        const target = await grams(part)
        await act({ put: 640 })
        await expect(page.getByText('Tare now, if the bucket is on.')).toBeVisible()
        await pedal(page, /on the scale: tare$/)
        await act({ put: target, within: 1 })
        await expect(page.getByText('That is it')).toBeVisible()
        await pedal(page, /^Take /)
        await act({ put: -640 - target })
        if (part === 'water') await expect(page.getByText('Dry bucket on, then tare.')).toBeVisible()
      }
      await expect(page.locator('button.go')).toHaveText('Start sifting')
    }
    await weigh()
    await pace(60)
    await press(page, 'Sift the powder in')
    await acting('thermometer')({ wet: true, pace: 60, room: 14, ratio: 0.45 })
    await press(page, 'Let it soak')

    await context.setOffline(true)
    const minutes = async () => Number(/(\d+) min.* since powder met water/.exec(await page.locator('.both').innerText())?.[1])
    const cutAt = await minutes()
    await press(page, 'Stir under the surface')
    await expect(page.getByText(/last heard \d+:\d\d, kept here/)).toBeVisible()
    await page.locator('body').press('4')
    await expect.poll(minutes).toBeGreaterThanOrEqual(cutAt + 5)
    await context.setOffline(false)
    await expect(page.getByText(/last heard|sending|no connection/i)).toHaveCount(0)

    await demo.kill()
    await press(page, 'Tap the bucket, then pour')
    await press(page, 'Clean up while it sets')
    await expect(page.getByText(/last heard \d+:\d\d, kept here/)).toBeVisible()
    await demo.start()
    await expect(page.getByText(/last heard|sending|no connection/i)).toHaveCount(0)
    await expect(page.getByText(/°C in the cast/)).toBeVisible()
    // The next batch the same way, at the clock's own pace while it is weighed.
    await pace(1)
    await press(page, 'Weigh water, then powder')
    await weigh()
    await pace(60)
    await press(page, 'Sift the powder in')
    await acting('thermometer')({ wet: true, pace: 60, room: 14, ratio: 0.45 })
    for (
      const next of [
        'Let it soak',
        'Stir under the surface',
        'Tap the bucket, then pour',
        'Clean up while it sets',
        'Leave it alone',
      ]
    ) await press(page, next)
    await demo.kill()
    await page.locator('body').press('6')
    await expect(page.getByRole('button', { name: 'Gloss gone ✓' })).toBeVisible()
    await demo.start()
    await expect(page.getByText(/last heard|sending|no connection/i)).toHaveCount(0)
    // Nobody marks the warmest: the thermometer does.
    await expect(page.getByRole('button', { name: 'Warmest ✓' })).toBeVisible({ timeout: 90_000 })

    const taken = async () =>
      (await (await page.request.get(`${demo.url}/api/pours/${at.split('/').at(-1)}`, AGAIN)).json() as {
        events: {
          id: string
          kind: string
          batch?: number
          data: { stage?: string, sign?: string, what?: string, where?: string }
        }[]
      }).events
    // (On a slow machine the first batch may be warmest too, while its five minutes are waited for.)
    await expect.poll(async () => (await taken()).filter(e => e.data.sign === 'warmest' && e.batch === 1).length).toBe(
      1,
    )
    const told = await taken()
    expect(new Set(told.map(e => e.id)).size).toBe(told.length)
    const first = told.filter(e => (e.batch ?? 0) === 0), second = told.filter(e => e.batch === 1)
    expect(second.filter(e => e.kind === 'stage').map(e => e.data.stage)).toEqual([
      'weigh',
      'sift',
      'soak',
      'stir',
      'fill',
      'clean-up',
      'set',
    ])
    expect(first.filter(e => e.kind === 'stage').map(e => e.data.stage)).toEqual([
      'ready',
      'weigh',
      'sift',
      'soak',
      'stir',
      'fill',
      'clean-up',
    ])
    expect(first.filter(e => e.kind === 'weighed').map(e => e.data.what)).toEqual(['water', 'powder'])
    expect(first.filter(e => e.kind === 'temperature' && e.data.where === 'room')).toHaveLength(1)
    expect(second.filter(e => e.kind === 'temperature' && e.data.where === 'cast').length).toBeGreaterThan(5)

    await pedal(page)
    await expect(page.getByRole('heading', { name: 'Shelf' })).toBeVisible()
    const onShelf = page.getByRole('listitem').filter({ hasText: 'By foot' })
    for (const casts of ['1–3', '4–6']) {
      await (await turnTo(page, onShelf.getByRole('button', { name: `Opened: Lantern base ${casts}` }))).press('Enter')
      await onShelf.getByRole('button', { name: `Inspect: Lantern base ${casts}` }).press('Enter')
      await expect(page.getByRole('dialog').locator(':focus')).toHaveCount(1)
      await page.getByRole('button', { name: /^Good/ }).press('Enter')
      await onShelf.getByRole('button', { name: `Finished: Lantern base ${casts}` }).press('Enter')
    }
    await expect(onShelf.getByRole('button')).toHaveCount(0)
    await page.goto(at.replace('/bench/', '/pour/'))
    for (
      const [batch, words] of [
        [1, 'Powder met water'],
        [1, 'Soak began'],
        [1, 'Stirring began'],
        [1, 'Webbing'],
        [1, 'Pouring began'],
        [1, 'All poured'],
        [2, 'Powder met water'],
        [2, 'All poured'],
        [2, 'Gloss gone'],
        [2, 'Warmest'],
      ] as const
    ) {
      await expect(page.getByRole('listitem').filter({ hasText: `Bucket ${batch}: ${words}` })).toHaveCount(1)
    }
    await expect.poll(async () => (await taken()).filter(e => e.kind === 'finished').length).toBe(6)
    const all = await taken()
    expect([
      all.filter(e => e.kind === 'opened').length,
      all.filter(e => e.kind === 'judged').length,
      all.filter(e => e.kind === 'finished').length,
    ]).toEqual([6, 6, 6])
  }
  finally {
    devices.forEach(end)
    await pace(1)
  }
})
