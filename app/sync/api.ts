import type { Answering, AnswerOf, Given, Giving, RouteName } from '~contract/routes'
import { pathOf } from '~contract/path'
import { PERSON_HEADER, ROUTE_HEADER } from '~contract/route-header'
import { GUEST_PERSON } from './guest'

/**
 * What went wrong with a request, in words; `status` 0 when the server was not reached. `ours` when the product's own
 * server said it, and not something on the way to it.
 */
export class Refused extends Error {
  constructor(readonly sentence: string, readonly status: number, readonly field?: string, readonly ours = false) {
    super(sentence)
  }
}

/** Entries of a pour are kept and sent later by who sends them; of all else this is the truth. */
const UNREACHED = {
  read: 'The workshop’s server does not answer just now, and this was not opened in this browser before.',
  change: 'The workshop’s server does not answer just now. This is not saved yet: try it again when it is back.',
} as const
/** After this long without an answer the server counts as not reached; files may take their time. */
const PATIENCE_MS = 20_000
const NOT_DONE = 'The server could not do this. Try it again.'

type Check = (name: RouteName, answer: unknown) => void
let check: Check | undefined
/** In development and tests every answer is held against its contract: app/sync/check-answers.ts. */
export function checkAnswersBy(by: Check): void {
  check = by
}

let acting: string | undefined
/** As whom this page asks: where somebody else is signed in by now, nothing is done in their name. */
export function actAs(person: string | undefined): void {
  acting = person
}
export const actsAs = (): string | undefined => acting

interface Refusal { readonly data?: { readonly sentence?: string, readonly field?: string } }
interface AnyGiven {
  readonly params?: Readonly<Record<string, unknown>>
  readonly query?: Readonly<Record<string, unknown>>
  readonly body?: unknown
  readonly bytes?: Blob
}
type OptionalIfEmpty<G> = object extends G ? [given?: G] : [given: G]
export type Rest<N extends RouteName> = OptionalIfEmpty<Given<N>>
export type Where<N extends RouteName> = OptionalIfEmpty<Pick<Given<N>, keyof Given<N> & ('params' | 'query')>>

/**
 * The address of a route, for a link or a picture; the path that begins it is also how answers are kept.
 * @example addressOf('GET photos/:id', { params: { id } })
 */
export function addressOf<N extends RouteName>(name: N, ...[given]: Where<N>): string {
  const { params, query } = (given ?? {}) as AnyGiven
  return pathOf(name.slice(name.indexOf(' ') + 1), params, query)
}

const unreached = (method: string) => new Refused(method === 'GET' ? UNREACHED.read : UNREACHED.change, 0)

/** @throws Refused with a sentence that can be shown as it is. */
async function send<N extends RouteName>(name: N, ...[given]: Rest<N>): Promise<Response> {
  const method = name.slice(0, name.indexOf(' ')), { body, bytes } = (given ?? {}) as AnyGiven
  // A guest asks nothing of anybody: it is as without a network.
  if (acting === GUEST_PERSON) throw unreached(method)
  const response = await fetch(addressOf(name, ...[given] as unknown as Where<N>), {
    method,
    headers: {
      ...acting !== undefined && method !== 'GET' && { [PERSON_HEADER]: acting },
      ...bytes ? { 'content-type': bytes.type } : body !== undefined && { 'content-type': 'application/json' },
    },
    body: bytes ?? (body === undefined ? undefined : JSON.stringify(body)),
    cache: 'no-store',
    signal: bytes ? undefined : AbortSignal.timeout?.(PATIENCE_MS),
    // What is saved as the page goes away is still sent.
    keepalive: method === 'PUT' && !bytes && globalThis.document?.visibilityState === 'hidden',
  }).catch(() => {
    throw unreached(method)
  })
  // Where it names no route it is judged by what it says.
  if ((response.headers.get(ROUTE_HEADER) ?? name) !== name) throw unreached(method)
  if (response.ok) return response
  const told = await response.json().catch(() => undefined) as Refusal | undefined
  const { sentence, field } = told?.data ?? {}
  throw new Refused(sentence ?? NOT_DONE, response.status, field, sentence !== undefined)
}

/**
 * Asks the server by a route's contract.
 * @throws Refused with a sentence that can be shown as it is.
 * @example const plans = await ask('GET plans')
 * @example await ask('PUT plans/:id', { params: { id }, body: { plan, revision } })
 */
export async function ask<N extends Answering>(name: N, ...given: Rest<N>): Promise<AnswerOf<N>> {
  const answer: unknown = await (await send(name, ...given)).json().catch(() => {
    // Half an answer, or a page of something on the way, is none.
    throw unreached(name.slice(0, name.indexOf(' ')))
  })
  check?.(name, answer)
  return answer as AnswerOf<N>
}

/** Asks for a file. @throws Refused as `ask` does. */
export function askFile<N extends Giving>(name: N, ...given: Rest<N>): Promise<Response> {
  return send(name, ...given)
}

/** A new id; also where the browser offers none because the page came over plain http. */
export function newId(): string {
  if (typeof crypto.randomUUID === 'function') return crypto.randomUUID()
  const b = crypto.getRandomValues(new Uint8Array(16))
  b[6] = (b[6]! & 0x0F) | 0x40
  b[8] = (b[8]! & 0x3F) | 0x80
  const hex = [...b].map(x => x.toString(16).padStart(2, '0')).join('')
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`
}
