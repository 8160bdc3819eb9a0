import { sql } from 'kysely'
import type { CodeMeans } from '~core/formats/labels'
import type { CodeAnswer } from '~contract/label'
import type { Scope } from './scope'

/** What a code names: usually one thing; undefined when nothing has it. */
export async function whatCodeNames(scope: Scope, means: CodeMeans): Promise<CodeAnswer | undefined> {
  // Ids begin with these eight signs: a range of ids, so that the key's own index finds them.
  const prefix = means.what === 'cast' ? means.pour : means.id
  const [from, to] = [`${prefix}-0000-0000-0000-000000000000`, `${prefix}-ffff-ffff-ffff-ffffffffffff`]
  if (means.what === 'bag') {
    const bags = await scope.select('library_item').select(['id', sql<string>`body->>'name'`.as('name')]).where(
      'kind',
      '=',
      'bag',
    ).where('id', '>=', from).where('id', '<=', to).execute()
    return bags.length === 0 ? undefined : { things: bags.map(b => ({ what: 'bag', id: b.id, name: b.name })) }
  }
  if (means.what === 'plan') {
    const plans = await scope.select('plan').select(['id', sql<string>`body->>'name'`.as('name')]).where(
      'id',
      '>=',
      from,
    ).where('id', '<=', to).execute()
    return plans.length === 0 ? undefined : { things: plans.map(p => ({ what: 'plan', id: p.id, name: p.name })) }
  }
  const casts = await scope.select('cast_projection').innerJoin(
    'pour_projection as p',
    join => join.onRef('p.workshop_id', '=', 'cast_projection.workshop_id')
      .onRef('p.pour_id', '=', 'cast_projection.pour_id'),
  )
    .select([
      'cast_projection.pour_id as pour',
      sql<string>`cast_projection.body->>'label'`.as('label'),
      sql<string>`p.body->>'name'`.as('name'),
    ])
    .where('cast_projection.pour_id', '>=', from).where('cast_projection.pour_id', '<=', to).where(
      'cast_projection.cast_id',
      '=',
      means.cast,
    ).execute()
  return casts.length === 0
    ? undefined
    : { things: casts.map(c => ({ what: 'cast', id: c.pour, cast: means.cast, name: `${c.label}, ${c.name}` })) }
}
