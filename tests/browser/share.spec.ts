import { execFileSync, spawn } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium, type Browser, type Page } from '@playwright/test'
import { freePort } from '../../bin/cluster.mjs'
import { chance } from '../../demo/random'
import { BUCKETS, makeIds, MOULDS, planOf, WISHES } from '../../demo/saltmarsh'
import { launch, type Product } from '../product'
import { HOST, launchShared, OWNER_CODE, type Shared } from '../shared'
import { expect, expectAccessible, press, test } from './workshop'

/** A phone's browser with a certificate store of its own, in which nothing of this machine's stands. */
async function phone(options: object, authority?: Buffer): Promise<Browser> {
  const home = mkdtempSync(join(tmpdir(), 'ripples-phone-')), store = `sql:${join(home, '.pki/nssdb')}`
  mkdirSync(join(home, '.pki/nssdb'), { recursive: true })
  execFileSync('certutil', ['-N', '-d', store, '--empty-password'])
  if (authority) {
    writeFileSync(join(home, 'authority.crt'), authority)
    execFileSync('certutil', ['-A', '-d', store, '-n', 'workshop', '-t', 'C,,', '-i', join(home, 'authority.crt')])
  }
  return chromium.launch({ ...options, env: { ...process.env, HOME: home } as Record<string, string> })
}
const PHONE = { viewport: { width: 390, height: 844 }, isMobile: true, hasTouch: true }

/** A pour of this workshop's own, begun by whoever is signed in on this page. */
async function pourIn(page: Page): Promise<string> {
  const ids = makeIds(chance(11)), id = randomUUID(), headers = { origin: server.url }
  const put = async (path: string, data: object) =>
    expect((await page.request.put(`${server.url}/api/${path}`, { data, headers })).ok()).toBe(true)
  await put(`library/mould/${ids.moulds.lantern}`, { body: MOULDS.lantern, revision: 0 })
  await put(`library/bucket/${ids.buckets.bowl}`, { body: BUCKETS.bowl, revision: 0 })
  const made = await page.request.post(`${server.url}/api/pours`, {
    headers,
    data: {
      id, plan: { ...planOf(ids, WISHES.lanterns), bag: undefined }, startedAt: Date.now(), device: 'laptop', deviceSeq: 1,
      eventId: randomUUID(),
    },
  })
  expect(made.ok()).toBe(true)
  return id
}

/** Left at the plain address by a phone: a note of a pour, a mould, and something of no version known here. */
async function leaveBehind(old: Page, key: string, pour: string): Promise<void> {
  const now = Date.now(), [note, mould] = [randomUUID(), randomUUID()]
  const event = {
    id: note, kind: 'note', data: { text: 'Told where nobody heard it' }, version: 2, happenedAt: now, recordedAt: now,
    device: 'old-phone', deviceSeq: 7,
  }
  const change = {
    key, name: `item/mould/${mould}`, target: { what: 'item', kind: 'mould', id: mould }, order: now, base: 0, isNew: true,
    body: { ...MOULDS.lantern, name: 'Made at the old address' }, stamp: randomUUID(), sent: [],
  }
  await old.evaluate(async ([waiting, changed]) => {
    const request = indexedDB.open('nine-ripples', 3)
    request.onupgradeneeded = () => {
      const { result } = request
      for (const name of ['waiting', 'begun']) result.createObjectStore(name, { keyPath: 'id' }).createIndex('key', 'key')
      result.createObjectStore('changes', { keyPath: ['key', 'name'] }).createIndex('key', 'key')
      result.createObjectStore('device', { keyPath: 'name' })
    }
    await new Promise((done) => { request.onsuccess = done })
    const tx = request.result.transaction(['waiting', 'changes'], 'readwrite')
    for (const one of waiting) tx.objectStore('waiting').put(one)
    tx.objectStore('changes').put(changed)
    await new Promise((done) => { tx.oncomplete = done })
    request.result.close()
  }, [[{ id: note, key, pour, order: 7, event }, { id: 'what is this', key }], change] as const)
}

let product: Product, server: Shared
test.beforeAll(async () => {
  product = await launch(process.env.TEST_DATABASE_BASE!, { demo: false })
  server = await launchShared(product.databaseUrl)
})
test.afterAll(async () => {
  server.kill()
  await product.kill()
})

test('a phone that trusts the workshop’s authority alone has all of the bench, and is thrown out from the laptop', async ({ page, launchOptions }) => {
  const [address] = server.facts.addresses
  const stranger = await phone(launchOptions)
  await expect((await (await stranger.newContext()).newPage()).goto(address!)).rejects.toThrow(/ERR_CERT_AUTHORITY_INVALID/)
  const before = await (await stranger.newContext(PHONE)).newPage()
  await before.goto(server.facts.install.replace('/install', '/'))
  await expect(before.getByRole('heading', { name: 'Let this phone trust the workshop’s server' })).toBeVisible()
  await expect(before.getByText('AB CD')).toBeVisible()
  await expectAccessible(before)
  const authority = await (await before.request.get(server.facts.install.replace('install', 'authority.crt'))).body()
  await stranger.close()

  const browser = await phone(launchOptions, authority), hand = await (await browser.newContext(PHONE)).newPage()
  await hand.goto(new URL('/sign-in', address).href)
  await hand.getByLabel('The code in the window').fill(OWNER_CODE)
  await hand.getByLabel('Name of the workshop').fill('Kiln Street')
  await hand.getByLabel('Your name').fill('Someone')
  await hand.getByLabel('E-mail address').fill('owner@example.org')
  await hand.getByLabel(/^Password/).fill('long enough to keep')
  await hand.getByRole('button', { name: 'Open the workshop' }).click()
  await expect(hand.getByText('No plans yet.').first()).toBeVisible()
  // What a page over plain http is denied: to be kept for the time without a network, and to keep the screen awake.
  expect(await hand.evaluate(async () => [
    isSecureContext, 'wakeLock' in navigator, (await navigator.serviceWorker.ready).active !== null,
  ])).toEqual([true, true, true])
  await expect.poll(() => hand.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true)

  await page.goto(`${server.url}/sign-in`)
  await page.getByLabel('E-mail address').fill('owner@example.org')
  await page.getByLabel('Password').fill('long enough to keep')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByText('No plans yet.').first()).toBeVisible()
  const pour = await pourIn(page)
  await page.getByRole('link', { name: 'Workshop' }).click()
  // A scale that hangs on the laptop is heard on the phone.
  await page.getByLabel('Which one').fill('Bench scale')
  await page.getByRole('button', { name: 'Bring it in' }).click()
  const scale = spawn(process.execPath, ['devices/scale.mjs'], {
    stdio: 'ignore',
    env: {
      ...process.env, SCALE_PORT: String(await freePort()), RIPPLES_SERVER: server.url,
      RIPPLES_TOKEN: await page.locator('.secret').innerText(),
    },
  })
  await hand.goto(`${address}/bench/${pour}`)
  await hand.getByRole('button', { name: 'Sound, light and other switches' }).click()
  await hand.getByRole('button', { name: 'Set up' }).click()
  await expect(hand.getByRole('button', { name: /^Scale/ })).toHaveCount(0)
  await hand.getByRole('button', { name: /^Bench scale/ }).click()
  await expect(hand.getByRole('button', { name: 'Bench scale heard' })).toBeVisible()
  scale.kill('SIGKILL')
  await expect(hand.getByRole('button', { name: 'Bench scale not heard' })).toBeVisible()
  // Without the network the pour goes on there, through a reload, and arrives when there is one again.
  await hand.context().setOffline(true)
  await press(hand, 'Weigh water, then powder')
  await expect(hand.getByText(/kept here \(1\)/)).toBeVisible()
  await hand.reload()
  await expect(hand.getByRole('heading', { level: 2, name: 'Weigh water, then powder' })).toBeVisible()
  await hand.context().setOffline(false)
  const told = async () => (await page.request.get(`${server.url}/api/pours/${pour}`)).text()
  await expect.poll(told).toContain('"stage":"weigh"')
  await hand.goto(`${address}/shelf`)
  await expect(hand.getByText('The shelf is empty.')).toBeVisible()

  // What a phone could not send from where the workshop was before it was shared.
  const old = await hand.context().newPage()
  await old.goto(`http://127.0.0.2:${new URL(server.url).port}/bench/${pour}`)
  await expect(old.getByRole('heading', { name: 'Let this phone trust the workshop’s server' })).toBeVisible()
  await expect(old.getByRole('heading', { name: 'Something waits here from before' })).toBeHidden()
  const { person, workshop } = await (await page.request.get(`${server.url}/api/session`)).json()
  await leaveBehind(old, `${person.id}@${workshop.id}`, pour)
  await old.reload()
  await expectAccessible(old)
  const popup = old.waitForEvent('popup')
  await old.getByRole('button', { name: 'Hand them over' }).click()
  const taking = await popup
  await expect(taking.getByText('2 entries and changes')).toBeVisible()
  await expect(taking.getByText('1 more cannot be read')).toBeVisible()
  await expectAccessible(taking)
  await taking.getByRole('button', { name: 'Take them in' }).click()
  await expect(old.getByText('Handed over, but for what the workshop could not read.')).toBeVisible()
  await taking.getByRole('button', { name: 'To the workshop' }).click()
  await expect.poll(async () => (await page.request.get(`${server.url}/api/pours/${pour}`)).text()).toContain('Told where nobody heard it')
  await expect.poll(async () => (await page.request.get(`${server.url}/api/library/mould`)).text()).toContain('Made at the old address')
  await old.reload()
  await expect(old.locator('[data-count]')).toHaveText('1')
  await taking.close()

  await expect(page.getByRole('img', { name: 'The address that a new phone opens first' })).toBeVisible()
  // What is handed over begins with the address that others reach.
  await page.getByRole('button', { name: 'Make an invitation' }).click()
  await expect(page.getByRole('link', { name: /\/enter\// })).toHaveAttribute('href', new RegExp(`^${address}`))
  await page.getByRole('link', { name: 'Your account' }).click()
  await page.getByRole('button', { name: /^End the session of/ }).click()
  await expect(hand.getByText('You are signed out: sign in, and what waits is sent.')).toBeVisible()
  await hand.reload()
  await expect(hand.getByRole('button', { name: 'Sign in' })).toBeVisible()
  await browser.close()
})

/** The workshop's owner, made here when no test before has made one. */
async function ownerThere(): Promise<void> {
  const { needsOwner } = await (await fetch(`${server.url}/api/session`)).json() as { needsOwner: boolean }
  if (!needsOwner) return
  const made = await fetch(`${server.url}/api/owner`, {
    method: 'POST',
    headers: { 'origin': server.url, 'content-type': 'application/json' },
    body: JSON.stringify({ workshop: 'Kiln Street', name: 'Someone', email: 'owner@example.org', password: 'long enough to keep' }),
  })
  expect(made.ok).toBe(true)
}
async function signInHere(page: Page, at: string): Promise<void> {
  await page.goto(new URL('/sign-in', at).href)
  await page.getByLabel('E-mail address').fill('owner@example.org')
  await page.getByLabel('Password').fill('long enough to keep')
  await page.getByRole('button', { name: 'Sign in', exact: true }).click()
  await expect(page.getByRole('navigation', { name: 'Main' })).toBeVisible()
}

test('a phone that opens the workshop by its name signs in with a passkey, until it is removed', async ({ page, launchOptions }) => {
  await ownerThere()
  const name = 'bench-under-test.local', at = server.facts.addresses[0]!.replace(HOST, name)
  const mapped = { ...launchOptions, args: [...launchOptions.args ?? [], `--host-resolver-rules=MAP ${name} ${HOST}`] }
  const browser = await phone(mapped, Buffer.from(server.root))
  const hand = await (await browser.newContext(PHONE)).newPage()
  // A device that holds keys and asks for a finger.
  const device = await hand.context().newCDPSession(hand)
  await device.send('WebAuthn.enable')
  await device.send('WebAuthn.addVirtualAuthenticator', {
    options: {
      protocol: 'ctap2', transport: 'internal', hasResidentKey: true, hasUserVerification: true, isUserVerified: true,
      automaticPresenceSimulation: true,
    },
  })
  await signInHere(hand, at)
  await hand.goto(`${at}/account`)
  await hand.getByLabel('A name for it').fill('My phone')
  const password = hand.getByLabel('Your password, to add one')
  await password.fill('not this one')
  await hand.getByRole('button', { name: 'Add a passkey' }).click()
  await expect(hand.getByText('That is not your password.')).toBeVisible()
  await password.fill('long enough to keep')
  await hand.getByRole('button', { name: 'Add a passkey' }).click()
  await expect(hand.getByText(`for ${name}, made`)).toContainText('not used yet')
  await expectAccessible(hand)
  await password.fill('long enough to keep')
  await hand.getByRole('button', { name: 'Add a passkey' }).click()
  await expect(hand.getByText('This device has a passkey for you already.')).toBeVisible()

  await hand.getByRole('button', { name: 'Sign out' }).click()
  const sent = hand.waitForRequest(r => r.url().endsWith('/api/session/passkey'))
  await hand.getByRole('button', { name: 'Sign in with a passkey' }).click()
  await expect(hand.getByRole('navigation', { name: 'Main' })).toBeVisible()
  // What opened the door once opens it no second time, whoever heard it.
  const again = await hand.evaluate(async body =>
    (await fetch('/api/session/passkey', { method: 'POST', headers: { 'content-type': 'application/json' }, body })).status,
  (await sent).postData())
  expect(again).toBe(401)
  await hand.goto(`${at}/account`)
  await expect(hand.getByText(`for ${name}, made`)).toContainText('last used')
  await hand.getByRole('button', { name: 'Remove My phone' }).click()
  await expect(hand.getByText(`for ${name}, made`)).toHaveCount(0)
  await hand.getByRole('button', { name: 'Sign out' }).click()
  await expect(hand.getByRole('button', { name: 'Sign in', exact: true })).toBeVisible()
  await expect(hand.getByRole('button', { name: 'Sign in with a passkey' })).toHaveCount(0)
  // By its number it is said why there are none.
  await signInHere(page, server.url)
  await page.goto(`${server.url}/account`)
  await expect(page.getByText('Open this page by the server’s name instead of its number')).toBeVisible()
  await browser.close()
})

test('a class sits down over plain http: no certificate, no account, and a reload finds the seat', async ({ page, launchOptions }) => {
  await ownerThere()
  await signInHere(page, server.url)
  await page.goto(`${server.url}/classes`)
  await page.getByLabel('Name of the class').fill('First plaster')
  await page.getByRole('button', { name: 'Open it and show the code' }).click()
  const code = (await page.getByRole('link', { name: 'The code, on the big screen' }).locator('.num').innerText()).replace(' ', '')
  const name = 'bench.test', plain = new URL(server.facts.install)
  plain.hostname = name
  const browser = await phone({ ...launchOptions, args: [...launchOptions.args ?? [], `--host-resolver-rules=MAP ${name} ${HOST}`] })
  const hand = await (await browser.newContext(PHONE)).newPage()
  await hand.goto(new URL('/join', plain).href)
  await hand.getByLabel(/code/i).fill(code)
  await hand.getByLabel('Your first name').fill('Kim')
  await hand.getByRole('button', { name: 'Take a seat' }).click()
  await expect(hand.getByRole('heading', { name: 'You are in' })).toBeVisible()
  await expectAccessible(hand)
  await expect(page.getByRole('listitem').filter({ hasText: 'Kim' })).toBeVisible()
  await page.getByRole('button', { name: 'Practise this' }).click()
  await expect(hand.getByRole('heading', { level: 1 })).toHaveText('First bowl')
  await hand.getByRole('button', { name: /^Water in/ }).click()
  await hand.getByRole('button', { name: /^Strew a handful/ }).click()
  await expect(page.getByRole('listitem').filter({ hasText: 'Kim' })).toContainText('sifts')
  await hand.reload()
  await expect(hand.getByRole('button', { name: 'Stir', exact: true })).toBeVisible()
  // Nothing of the workshop is to be had with a seat.
  for (const of of ['pours', 'plans', 'people', 'account', 'classes']) {
    expect((await hand.request.get(new URL(`/api/${of}`, plain).href.replace(name, HOST))).status()).toBeGreaterThanOrEqual(400)
  }
  await browser.close()
})

test('over plain http a guest pours all the same: nothing is asked of the server, nobody signs in, and a file is kept', async ({ launchOptions }) => {
  // A name of no secure kind, as the address of a workshop's own network is.
  const name = 'bench.test', plain = new URL(server.facts.install)
  plain.hostname = name
  const browser = await phone({ ...launchOptions, args: [...launchOptions.args ?? [], `--host-resolver-rules=MAP ${name} ${HOST}`] })
  const page = await (await browser.newContext({ ...PHONE, acceptDownloads: true })).newPage(), asked: string[] = []
  page.on('request', r => r.url().includes('/api/') && asked.push(r.url()))
  await page.goto(plain.href)
  await page.getByRole('link', { name: 'Pour as a guest' }).click()
  expect(await page.evaluate(() => isSecureContext)).toBe(false)
  await expect(page.getByText('the screen may go dark by itself')).toBeVisible()
  await expectAccessible(page)
  await page.getByRole('button', { name: 'Mix it' }).click()
  await expect(page.getByRole('heading', { level: 2, name: 'Get the moulds and table ready' })).toBeVisible()
  await press(page, 'Weigh water, then powder')
  await page.reload()
  await expect(page.getByRole('heading', { level: 2, name: 'Weigh water, then powder' })).toBeVisible()
  await page.goto(new URL('/keep', plain).href)
  await expect(page.getByText('This address is not private')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Keep it in a workshop' })).toHaveCount(0)
  await expectAccessible(page)
  const saved = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save it as a file' }).click()
  expect((await saved).suggestedFilename()).toMatch(/guest\.json$/)
  expect(asked).toEqual([])
  // What is a workshop's leads to the way in.
  for (const of of ['/sign-in', '/settings', '/']) {
    await page.goto(new URL(of, plain).href)
    await expect(page.getByRole('heading', { name: 'Let this phone trust the workshop’s server' })).toBeVisible()
  }
  await browser.close()
})
