import {
  createError,
  defineEventHandler,
  getQuery,
  getRequestHeader,
  getRouterParams,
  readBody,
  setResponseHeader,
  H3Error,
  type EventHandler,
  type H3Event,
} from 'h3'
import { useRuntimeConfig } from '#imports'
import { PERSON_HEADER, ROUTE_HEADER } from '~contract/route-header'
import { holdable } from '~contract/text'
import { plainly, type z } from '~contract/zod'
import type { Role } from '~contract/account'
import { ROUTES, type Answering, type AnswerOf, type RouteName, type Routes } from '~contract/routes'
import type { Contract } from '~contract/routes/route'
import { workshopTime } from '~contract/clock'
import { copyOfDatabase, database, databaseTrouble } from './database'
import { log, withoutValues } from './log'
import { ANSWERS } from './words'
import { whoIs, type Here } from './auth/session'
import { within, type Scope } from './store/scope'
import type { Db } from './store/open'
import { Refused } from './refused'

/** Ends a request with a sentence that a person can act on; `field` says where it belongs. */
export function refuse(status: number, sentence: string, field?: string): H3Error {
  return createError({ statusCode: status, message: sentence, data: { sentence, field } })
}

type Part<C, K extends string> = C extends { readonly [N in K]: infer S extends z.ZodType } ? z.output<S> : undefined

interface PublicCall<N extends RouteName> {
  readonly event: H3Event
  readonly db: Db
  readonly params: Part<Routes[N], 'params'>
  readonly query: Part<Routes[N], 'query'>
  readonly body: Part<Routes[N], 'body'>
}
export interface Call<N extends RouteName> extends PublicCall<N> {
  readonly person: Here
  readonly scope: Scope
  /** The workshop's clock. */
  readonly now: number
}
type CallOf<N extends RouteName> = Routes[N]['role'] extends 'anyone' ? PublicCall<N> : Call<N>
type Result<N extends RouteName> = N extends Answering ? AnswerOf<N> : unknown

function parse<S extends z.ZodType>(schema: S, value: unknown): z.output<S> {
  const result = schema.safeParse(value, { error: plainly })
  if (result.success) return result.data
  const issue = result.error.issues[0]!
  throw refuse(400, issue.message, issue.path.join('.') || undefined)
}

async function read(event: H3Event, { params, query, body }: Contract): Promise<PublicCall<RouteName>> {
  const known = params && parse(params, holdable(getRouterParams(event, { decode: true })))
  const asked = query && parse(query, holdable(getQuery(event)))
  let told: unknown
  if (body) {
    try {
      told = holdable(await readBody(event, { strict: true }))
    }
    catch {
      throw refuse(400, 'The request did not arrive whole; send it again.')
    }
  }
  const { db } = await database()
  return { event, db, params: known, query: asked, body: body && parse(body, told) } as PublicCall<RouteName>
}

/**
 * One place where whatever goes wrong becomes an answer: refusals as they are, a database in trouble by its own
 * sentence, anything else as a plain 500 with the details in the log only.
 */
async function answer<T>(event: H3Event, work: () => Promise<T>): Promise<T> {
  try {
    return await work()
  }
  catch (error) {
    if (error instanceof H3Error) throw error
    if (error instanceof Refused) throw refuse(error.status, error.message, error.field)
    const trouble = databaseTrouble(error)
    if (trouble) throw refuse(ANSWERS[trouble].status, ANSWERS[trouble].sentence)
    const { requestId: id } = event.context as { readonly requestId?: string }
    log.error({ id, error: withoutValues(error) })
    console.error(`Error ${id ?? ''}: ${(error as Error).message}`)
    throw refuse(500, 'Something went wrong on the server; nothing was changed. Try it again.')
  }
}

/** What a route answers that has nothing to say but that it was done. */
export const DONE = { ok: true } as const

const RANK: Record<Role, number> = { viewer: 0, member: 1, owner: 2 }

/**
 * Who they are and what they may do is read from the database each time, and every query is scoped. A page that was
 * opened as somebody else, or in another workshop, changes nothing here.
 */
async function admit(event: H3Event, role: Role): Promise<Here> {
  const { db } = await database(), person = await whoIs(event, db)
  if (!person) throw refuse(401, 'Sign in first.')
  const meant = getRequestHeader(event, PERSON_HEADER)
  if (meant !== undefined && meant !== person.id) throw refuse(
    401,
    'This browser is signed in as someone else by now, or in another workshop. Open the page anew.',
  )
  if (RANK[person.role] < RANK[role]) throw refuse(
    403,
    role === 'owner'
      ? 'Only an owner of the workshop can change this.'
      : 'You can look at everything here, but not change it. Ask an owner to make you a member.',
  )
  return person
}

/** In development and tests an answer that is not what its contract promises is a fault, and is said to be one. */
function checked(name: RouteName, { answer }: Contract, value: unknown): unknown {
  if (!answer || !(import.meta.dev || useRuntimeConfig().public.checkAnswers)) return value
  const told = answer.safeParse(JSON.parse(JSON.stringify(value)))
  if (!told.success) throw new Error(`${name} does not answer by its contract: ${told.error.message}`)
  return value
}

/** Asks the copy, and the database itself where the copy is away. */
async function fromEither<T>(copy: Promise<Db>, db: Db, ask: (db: Db) => T | Promise<T>): Promise<T> {
  try {
    return await ask(await copy)
  }
  catch (error) {
    if (!databaseTrouble(error)) throw error
    return ask(db)
  }
}

/**
 * Serves a route by its contract (contract/routes): who may call it, what it is given and what it answers. `work` is
 * what is left to do.
 * @example export default serve('GET pours', ({ scope }) => pourRows(scope))
 */
export function serve<N extends RouteName>(
  name: N,
  work: (call: CallOf<N>) => Result<N> | Promise<Result<N>>,
): EventHandler {
  const contract: Contract = ROUTES[name]
  return defineEventHandler(event => answer(event, async () => {
    setResponseHeader(event, ROUTE_HEADER, name)
    const { role } = contract, person = role === 'anyone' ? undefined : await admit(event, role)
    const told = await read(event, contract)
    const from = (db: Db) => work((person
      ? {
          ...told, db, person, scope: within(db, person.workshopId, person),
          now: workshopTime(person.clock, Date.now()),
        }
      : told) as unknown as CallOf<N>)
    const copy = contract.ofCopy && person?.home === null && copyOfDatabase()
    return checked(name, contract, await (copy ? fromEither(copy, told.db, from) : from(told.db)))
  }))
}

export function demoMode(): boolean {
  return String(useRuntimeConfig().demoMode) === 'true'
}

/** Whether anyone with an invitation may open a workshop of their own. */
export function manyMode(): boolean {
  return String(useRuntimeConfig().many) === 'true'
}

export function found<T>(thing: T | undefined | null | false, sentence: string): T {
  if (!thing) throw refuse(404, sentence)
  return thing
}
