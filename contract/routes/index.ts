import type { z } from '../zod'
import { CLASS_ROUTES } from './classes'
import { DEVICE_ROUTES } from './devices'
import { LIBRARY_ROUTES } from './library'
import { LINK_ROUTES } from './links'
import { LOGBOOK_ROUTES } from './logbook'
import { PEOPLE_ROUTES } from './people'
import { POUR_ROUTES } from './pours'
import { WORKSHOP_ROUTES } from './workshop'

/**
 * Every route of the server, by method and path. The server reads it (server/route.ts); the browser only its types
 * (app/sync/api.ts), but for development and tests, where answers are checked by it.
 */
export const ROUTES = {
  ...PEOPLE_ROUTES,
  ...WORKSHOP_ROUTES,
  ...LIBRARY_ROUTES,
  ...POUR_ROUTES,
  ...LOGBOOK_ROUTES,
  ...LINK_ROUTES,
  ...DEVICE_ROUTES,
  ...CLASS_ROUTES,
} as const
export type Routes = typeof ROUTES
export type RouteName = keyof Routes

type Told<T> = { readonly [K in keyof T]: Told<T[K]> }
type Part<C, K extends string> = C extends { readonly [N in K]: infer S extends z.ZodType }
  ? object extends z.input<S> ? { readonly [N in K]?: Told<z.input<S>> } : { readonly [N in K]: Told<z.input<S>> }
  : unknown
type Bytes<C> = C extends { readonly takes: string } ? { readonly bytes: Blob } : unknown

/** What a call of a route gives along. */
export type Given<N extends RouteName>
  = & Part<Routes[N], 'params'>
    & Part<Routes[N], 'query'>
    & Part<Routes[N], 'body'>
    & Bytes<Routes[N]>
/** What a route answers. */
export type AnswerOf<N extends RouteName> = Routes[N] extends { readonly answer: infer A extends z.ZodType }
  ? z.output<A>
  : never
/** Routes that answer in JSON, and those that give a file or a stream. */
export type Answering = { [N in RouteName]: Routes[N] extends { readonly answer: z.ZodType } ? N : never }[RouteName]
export type Giving = Exclude<RouteName, Answering>
