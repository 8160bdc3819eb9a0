import { expect, test } from '@playwright/test'
import { execFileSync, spawn } from 'node:child_process'
import { once } from 'node:events'
import { mkdtempSync, readFileSync, rmSync, utimesSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { freePort } from '../../bin/cluster.mjs'

const changedFiles = () => execFileSync('git', ['status', '--porcelain'], { encoding: 'utf8' })
const touch = (file: string) => utimesSync(file, new Date(), new Date())
/** Everything that still runs with this folder in its command. */
const runningWith = (folder: string) =>
  execFileSync('ps', ['-eo', 'args'], { encoding: 'utf8' }).split('\n').filter(a =>
    a.includes(folder) && !a.startsWith('ps '),
  )

test('npm run dev: a page, both kinds of reload, and nothing left behind', async ({ page }) => {
  const before = changedFiles(), port = await freePort(), folder = mkdtempSync(join(tmpdir(), 'ripples-dev-'))
  const dev = spawn(process.execPath, ['bin/dev.mjs'], {
    env: { ...process.env, PORT: String(port), DEV_FOLDER: folder }, stdio: ['ignore', 'pipe', 'pipe'],
  })
  let said = ''
  for (const stream of [dev.stdout, dev.stderr]) stream.on('data', (text: Buffer) => { said += text.toString() })
  const faults: string[] = [], updates: string[] = []
  page.on('pageerror', error => faults.push(error.message))
  page.on('console', (message) => {
    // The server is made anew after a change to the core, and cuts its streams: the page opens another.
    const cut = /ERR_INCOMPLETE_CHUNKED_ENCODING|status of 50[23]/.test(message.text())
    if (!cut && (message.type() === 'error' || message.type() === 'warning')) faults.push(`${message.text()} ${message.location().url}`)
    if (message.text().startsWith('[vite] hot updated')) updates.push(message.text())
  })
  try {
    const address = `http://127.0.0.1:${port}/`
    const answers = () => fetch(`${address}api/session`).then(r => r.ok, () => false)
    await expect.poll(answers, { timeout: 120_000, message: said }).toBe(true)
    await page.goto(`${address}sign-in`)
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    touch('app/pages/sign-in.vue')
    await expect.poll(() => updates.some(u => u.includes('sign-in.vue'))).toBe(true)
    const seen = updates.length
    touch('core/units/format.ts')
    await expect.poll(() => updates.length).toBeGreaterThan(seen)
    // What is brought in runs in a thread, as it is written.
    const enter = page.getByRole('button', { name: 'Enter the demo workshop' })
    // The server is made anew after the change, and may not answer while it is.
    await expect(async () => {
      if (await enter.isVisible() && await enter.isEnabled()) await enter.click({ timeout: 10_000 })
      await expect(page.getByRole('region', { name: 'On the table' })).toBeVisible({ timeout: 10_000 })
    }).toPass()
    const data = { kind: 'bags', rows: [{ name: 'A bag of work', classId: 'casting-plaster', note: '' }] }
    await page.request.post(`${address}api/import`, { data, headers: { origin: address.slice(0, -1) } })
    const states = async () =>
      ((await (await page.request.get(`${address}api/imports`)).json()) as { state: string }[]).map(j => j.state)
    await expect.poll(states).toEqual(['done'])
    expect(faults).toEqual([])
  }
  finally {
    dev.kill('SIGINT')
    if (dev.exitCode === null) await once(dev, 'exit')
  }
  expect(dev.exitCode).toBe(0)
  expect(runningWith(folder)).toEqual([])
  expect(changedFiles()).toBe(before)
  expect(readFileSync('.gitignore', 'utf8')).toMatch(/^\.env/m)
  rmSync(folder, { recursive: true, force: true })
})
