import { sql } from 'kysely'
import { ITEMS, PLANS, RUNS, upcast, type SetAside, type Unreadable, type Upcast } from '~contract/versions'
import { Refused } from '../refused'
import type { Scope } from './scope'

/** What is stored and cannot be read: left out of its list, kept as it is, and told here. */

/** What was read. @throws Refused `newer-record` or `broken-record` */
export function readable<T>(read: Upcast<T>): T {
  if (read.ok) return read.value
  throw new Refused(read.why === 'newer' ? 'newer-record' : 'broken-record')
}

const nameIn = (body: unknown) => {
  const name = (body as { readonly name?: unknown } | null)?.name
  return typeof name === 'string' ? name : undefined
}

/** Everything of a workshop that this version cannot read. */
export async function setAside(scope: Scope): Promise<SetAside[]> {
  const plans = await scope.select('plan').select(['id', 'schema_version', 'body']).where('archived_at', 'is', null)
    .execute()
  const items = await scope.select('library_item').select(['id', 'kind', 'schema_version', 'body'])
    .where('archived_at', 'is', null).execute()
  const pours = await scope.select('pour').select([
    'id',
    sql<string | null>`run->'plan'->>'name'`.as('name'),
    sql<boolean>`jsonb_typeof(run->'schema') = 'number'`.as('numbered'),
  ])
    .where(sql<boolean>`((run->>'schema') ~ '^[0-9]{1,9}$'
      and (run->>'schema')::int between 1 and ${RUNS.version}::int) is not true`).execute()
  const told = (what: SetAside['what'], id: string, body: unknown, read: Upcast<unknown>): SetAside[] =>
    read.ok ? [] : [{ what, id, name: nameIn(body), why: read.why }]
  return [
    ...plans.flatMap(p => told('plan', p.id, p.body, upcast(PLANS, p.schema_version, p.body))),
    ...items.flatMap(i => told(i.kind, i.id, i.body, upcast<unknown>(ITEMS[i.kind], i.schema_version, i.body))),
    ...pours.map(p => ({ what: 'pour' as const, id: p.id, name: p.name ?? undefined, why: (p.numbered ? 'newer' : 'broken') as Unreadable })),
  ]
}
