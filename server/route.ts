import {
  createError,
  defineEventHandler,
  getCookie,
  getQuery,
  getRouterParams,
  readBody,
  H3Error,
  type EventHandler,
  type H3Event,
} from 'h3'
import { getUserSession, useRuntimeConfig } from '#imports'
import type { z } from 'zod'
import type { Role } from '~contract/account'
import { workshopTime } from '~contract/clock'
import { database } from './database'
import { LastUsed } from './last-used'
import { personById } from './store/workshops'
import { within, type Scope } from './store/scope'
import type { Db } from './store/open'
import { Refused } from './refused'

/** Ends a request with a sentence that a person can act on; `field` says where it belongs. */
export function refuse(status: number, sentence: string, field?: string): H3Error {
  return createError({ statusCode: status, message: sentence, data: { sentence, field } })
}

type Person = NonNullable<Awaited<ReturnType<typeof personById>>>
type Parsed<S> = S extends z.ZodType ? z.output<S> : undefined

export interface PublicCall<B, Q, P> {
  readonly event: H3Event
  readonly db: Db
  readonly body: B
  readonly query: Q
  readonly params: P
}
export interface Call<B, Q, P> extends PublicCall<B, Q, P> {
  readonly person: Person
  readonly scope: Scope /** The workshop's clock. */
  readonly now: number
}

type Schema = z.ZodType | undefined
interface Shape<B extends Schema, Q extends Schema, P extends Schema> {
  readonly body?: B
  readonly query?: Q
  readonly params?: P
}

function parse<S extends z.ZodType>(schema: S, value: unknown): z.output<S> {
  const result = schema.safeParse(value)
  if (result.success) return result.data
  const issue = result.error.issues[0]!
  const field = issue.path.join('.')
  const plain = issue.message.endsWith('.') // our own sentences end with a full stop, the library's do not
  throw refuse(
    400,
    plain ? issue.message : `This could not be read${field ? ` at “${field}”` : ''}: ${issue.message}.`,
    field || undefined,
  )
}

async function call<B extends Schema, Q extends Schema, P extends Schema>(
  event: H3Event,
  shape: Shape<B, Q, P>,
): Promise<PublicCall<Parsed<B>, Parsed<Q>, Parsed<P>>> {
  const params = shape.params ? parse(shape.params, getRouterParams(event)) : undefined
  const query = shape.query ? parse(shape.query, getQuery(event)) : undefined
  let raw: unknown
  if (shape.body) {
    try {
      raw = await readBody(event, { strict: true })
    }
    catch {
      throw refuse(400, 'The request did not arrive whole; send it again.')
    }
  }
  const body = shape.body ? parse(shape.body, raw) : undefined
  const { db } = await database()
  return { event, db, body, query, params } as PublicCall<Parsed<B>, Parsed<Q>, Parsed<P>>
}

/**
 * One place where whatever goes wrong becomes an answer: refusals as they are, a lost database as 503, anything else as
 * a plain 500 with the details in the log only.
 */
async function answer<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work()
  }
  catch (error) {
    if (error instanceof H3Error) throw error
    if (error instanceof Refused) throw refuse(error.status, error.message, error.field)
    const code = (error as { code?: string }).code ?? ''
    if (
      code.startsWith('ECONN') || code.startsWith('57P') || code.startsWith('08')
      || /Connection terminated/.test(String(error))
    ) {
      throw refuse(
        503,
        'The workshop’s records cannot be reached just now. Nothing is lost; it is tried again by itself.',
      )
    }
    console.error(error)
    throw refuse(500, 'Something went wrong on the server; nothing was changed. Try it again.')
  }
}

/** A route that anyone may call: signing in and finding out whether one is. */
export function openRoute<T, B extends Schema = undefined, Q extends Schema = undefined, P extends Schema = undefined>(
  shape: Shape<B, Q, P>,
  work: (call: PublicCall<Parsed<B>, Parsed<Q>, Parsed<P>>) => Promise<T>,
): EventHandler {
  return defineEventHandler(event => answer(async () => work(await call(event, shape))))
}

const RANK: Record<Role, number> = { viewer: 0, member: 1, owner: 2 }

/**
 * A route for people of a workshop, of at least this role. The role is read from the database each time, and every
 * query is scoped.
 */
export function route<T, B extends Schema = undefined, Q extends Schema = undefined, P extends Schema = undefined>(
  role: Role,
  shape: Shape<B, Q, P>,
  work: (call: Call<Parsed<B>, Parsed<Q>, Parsed<P>>) => Promise<T>,
): EventHandler {
  return defineEventHandler(event =>
    answer(async () => {
      const person = await whoIs(event)
      if (!person) throw refuse(401, 'Sign in first.')
      if (RANK[person.role] < RANK[role])
        throw refuse(
          403,
          role === 'owner'
            ? 'Only an owner of the workshop can change this.'
            : 'You can look at everything here, but not change it. Ask an owner to make you a member.',
        )
      const parsed = await call(event, shape)
      return work({
        ...parsed,
        person,
        scope: within(parsed.db, person.workshopId),
        now: workshopTime(person.clock, Date.now()),
      })
    }),
  )
}

/**
 * Whose a sealed cookie is, for as long as it was looked into lately: opening a seal derives keys, and every entry of a
 * pour comes with one.
 */
const SEALS_LOOKED_INTO_MS = 60_000
const seals = new LastUsed<{ readonly id: string, readonly until: number }>(2000)

export async function whoIs(event: H3Event): Promise<Person | undefined> {
  const seal = getCookie(event, useRuntimeConfig().session.name ?? 'nuxt-session'),
    known = seal === undefined ? undefined : seals.get(seal)
  let id = known && known.until > Date.now() ? known.id : undefined
  if (id === undefined) {
    id = (await getUserSession(event)).user?.id
    if (id === undefined) return undefined
    if (seal !== undefined) seals.set(seal, { id, until: Date.now() + SEALS_LOOKED_INTO_MS })
  }
  const { db } = await database()
  return personById(db, id)
}

export function demoMode(): boolean {
  return String(useRuntimeConfig().demoMode) === 'true'
}

export function found<T>(thing: T | undefined | null | false, sentence: string): T {
  if (!thing) throw refuse(404, sentence)
  return thing
}
