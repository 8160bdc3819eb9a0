import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, inject } from 'vitest'
import { BUCKETS, makeIds, MOULDS, planOf, WISHES } from '../../demo/saltmarsh'
import { chance } from '../../demo/random'
import { launch, type Product } from '../product'

/* eslint-disable import/no-mutable-exports -- set before the first test of a file, and read by all of them */
export let product: Product, demo: Product
export const PASSWORD = 'a long enough word'
export const ids = makeIds(chance(5))

export type Answer = {
  status: number
  body: { data?: { sentence?: string, field?: string } } & Record<string, unknown>
  cookie: string
}

export async function ask(
  at: Product,
  method: string,
  path: string,
  { body, cookie = '', headers = {} }: { body?: unknown, cookie?: string, headers?: Record<string, string> } = {},
): Promise<Answer> {
  const response = await fetch(`${at.url}/api/${path}`, {
    method,
    headers: {
      'origin': at.url,
      'sec-fetch-site': 'same-origin',
      'content-type': 'application/json',
      cookie,
      ...headers,
    },
    body: body === undefined ? undefined : typeof body === 'string' ? body : JSON.stringify(body),
  })
  return {
    status: response.status,
    body: await response.json().catch(() => ({})) as Answer['body'],
    cookie: response.headers.getSetCookie().map(c => c.split(';')[0]).join('; '),
  }
}
/** Somebody new comes into the workshop by an invitation of its owner. @returns their cookies */
export async function comeIn(by: string, name: string, role: string): Promise<string> {
  const { body } = await ask(product, 'POST', 'invitations', { cookie: by, body: { name, role } })
  const came = await ask(product, 'POST', `tickets/${body.token as string}`, {
    body: { name, email: `${name}@example.org`, password: PASSWORD },
  })
  return came.cookie
}
/** The id of whoever these cookies are of, in the workshop they are in. */
export async function idOf(cookie: string): Promise<string> {
  return ((await ask(product, 'GET', 'session', { cookie })).body.person as { id: string }).id
}
export const signIn = async (email: string, password = PASSWORD) =>
  ask(product, 'POST', 'session', { body: { email, password } })

export let owner = '', member = '', viewer = ''
/* eslint-enable import/no-mutable-exports */

/** A workshop with an owner, a member and a viewer for the tests of a file, and a demo beside it if one is wanted. */
export function overHttp({ demo: withDemo = false } = {}): void {
  beforeAll(async () => {
    const base = inject('databaseBase')
    product = await launch(base, { demo: false })
    if (withDemo) demo = await launch(base, { demo: true })
    owner
      = (await ask(product, 'POST', 'owner', {
        body: { workshop: 'Ours', name: 'First', email: 'first@example.org', password: PASSWORD },
      })).cookie
    member = await comeIn(owner, 'member', 'member')
    viewer = await comeIn(owner, 'viewer', 'viewer')
    await ask(product, 'PUT', `library/mould/${ids.moulds.lantern}`, {
      cookie: member,
      body: { body: MOULDS.lantern, revision: 0 },
    })
    await ask(product, 'PUT', `library/bucket/${ids.buckets.bowl}`, {
      cookie: member,
      body: { body: BUCKETS.bowl, revision: 0 },
    })
  })
  afterAll(() => Promise.all([product?.kill(), demo?.kill()]))
}

export const plan = () => ({ ...planOf(ids, WISHES.lanterns), bag: undefined })
export const start = (cookie: string, body: object = {}) => {
  const id = randomUUID()
  return ask(product, 'POST', 'pours', {
    cookie,
    body: { id, plan: plan(), startedAt: Date.now(), device: 'd', deviceSeq: 1, eventId: randomUUID(), ...body },
  })
}
export const stage = (name: string) => ({
  id: randomUUID(),
  version: 1,
  batch: 0,
  kind: 'stage',
  data: { stage: name },
  happenedAt: Date.now(),
  recordedAt: Date.now(),
  device: 'd',
  deviceSeq: 2,
})
