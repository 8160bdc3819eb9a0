import { freezeRun, type FrozenRun } from '../core/plan/run'
import { tell, type Progress } from '../demo/history'
import { chance } from '../demo/random'
import { BAGS, BUCKETS, makeIds, MOULDS, planOf, WISHES, type WishKey } from '../demo/saltmarsh'
import { worldOf } from '../server/store/library'
import type { Db } from '../server/store/open'
import { restorePours, type WholePour } from '../server/store/restoring'
import { within } from '../server/store/scope'
import type { Product } from '../tests/product'

/** Invented pours of many seasons for the demo's workshop, told through the core like the demo itself. */
export async function seasons(db: Db) {
  const now = Date.now(), day = 86_400_000, c = chance(4)
  const { id: workshop } = await db.selectFrom('workshop').select('id').executeTakeFirstOrThrow(),
    scope = within(db, workshop)
  const person = (await scope.select('person').select('id').executeTakeFirstOrThrow()).id
  // The demo's own library, found again by its names.
  const items = await scope.select('library_item').select(['id', 'kind', 'body']).execute(), made = makeIds(chance(1))
  const find = (bodies: Record<string, { readonly name: string }>, ids: Record<string, string>) =>
    Object.fromEntries(Object.keys(ids).map(k => [k, items.find(i => i.body.name === bodies[k]?.name)?.id ?? ids[k]!]))
  const ids = {
    moulds: find(MOULDS, made.moulds),
    bags: find(BAGS, made.bags),
    buckets: find(BUCKETS, made.buckets),
  } as typeof made
  const runs: FrozenRun[] = []
  for (const wish of Object.keys(WISHES) as WishKey[]) {
    const plan = planOf(ids, WISHES[wish]), frozen = freezeRun(plan, await worldOf(scope, plan, Date.now()))
    if (!frozen.ok) throw new Error(`${wish}: ${frozen.problems[0]?.code}`)
    runs.push(frozen.run)
  }
  const word = () =>
    `${'bcdfgklmnprst'[Math.floor(13 * c.next())]}${'aeiou'[Math.floor(5 * c.next())]}${
      'bcdfgklmnprst'[Math.floor(13 * c.next())]
    }${'aeiou'[Math.floor(5 * c.next())]}`
  const troubles = ['too-thin', 'over-stirred', 'hurried', 'short'] as const
  const pour = (i: number): WholePour => {
    const run = runs[i % runs.length]!, name = `${run.plan.name} ${word()}`, wetAt = now - day * (10 + 3000 * c.next())
    const trouble = c.next() < 0.2 ? { kind: troubles[Math.floor(4 * c.next())]!, share: c.next() } : undefined
    const events = tell(run, { wetAt, progress: 'finished' as Progress, trouble }, now, c, `bench-${i}`)
    return {
      id: c.id(),
      run: { ...run, plan: { ...run.plan, name } },
      startedBy: person,
      createdAt: new Date(wetAt),
      entries: events.map(event => ({ event, actor: person, skewMs: 0, receivedAt: new Date(wetAt) })),
    }
  }
  let kept = 0
  /** Pours until there are so many. */
  async function fill(size: number): Promise<void> {
    for (; kept < size; kept += 100)
      await scope.transaction(inner => restorePours(inner, Array.from({ length: 100 }, (_, i) => pour(kept + i))))
  }
  return { ids, chance: c, word, fill }
}

/** Somebody in the demo: the headers of what they ask. */
export async function entered(product: Product): Promise<{ readonly origin: string, readonly cookie: string }> {
  const entrance = await fetch(`${product.url}/api/demo-entrance`, { method: 'POST', headers: { origin: product.url } })
  return { origin: product.url, cookie: cookiesOf(entrance) }
}
export const cookiesOf = (answer: Response) => answer.headers.getSetCookie().map(x => x.split(';')[0]).join('; ')
