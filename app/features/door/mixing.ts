import type { DoorThings } from '~core/door/door'
import type { Plan } from '~core/plan/types'
import { BUCKET_SIZES } from '~core/door/kinds'
import { bagSchema, bucketSchema, mouldSchema, type LibraryBodies, type LibraryKind } from '~contract/library'
import { planSchema } from '~contract/plan'
import { z } from '~contract/zod'
import { usePlanning } from '~/features/plan/planning'
import { usePlans } from '~/sync/plans'
import { newId } from '~/sync/api'
import { useLibrary } from '~/sync/library'
import { HANDED } from './strangers'

/** What the door hands to the application, through the tab's own store: docs in strangers.ts. */
const handedSchema = z.object({
  to: z.enum(['bench', 'keep']),
  plan: planSchema,
  mould: mouldSchema.extend({ id: z.string() }),
  bucket: z.object({
    id: z.string(), name: z.string(), size: z.enum(Object.keys(BUCKET_SIZES) as [keyof typeof BUCKET_SIZES]),
  }),
  bag: bagSchema.extend({ id: z.string() }).optional(),
})

/** @returns what was handed over, once; nothing where there is none, or it cannot be read */
export function takeHanded(): (DoorThings & { readonly to: 'bench' | 'keep' }) | undefined {
  try {
    const text = sessionStorage.getItem(HANDED)
    sessionStorage.removeItem(HANDED)
    const read = handedSchema.safeParse(JSON.parse(text ?? 'null'))
    return read.success ? read.data as unknown as DoorThings & { to: 'bench' | 'keep' } : undefined
  }
  catch {
    return undefined
  }
}

/** Puts what the door worked out into a workshop, or a guest's own store, and takes it to the bench. */
export function useMixing() {
  const library = useLibrary(), planning = usePlanning(), plans = usePlans()
  /** The same thing twice is one thing. */
  async function have<K extends LibraryKind>(
    kind: K, body: LibraryBodies[K], keys: readonly string[],
  ): Promise<string> {
    const told = (of: object) => JSON.stringify(keys.map(k => (of as Record<string, unknown>)[k]))
    const known = library.items[kind].find(i => told(i.body) === told(body))
    if (known) return known.id
    const id = newId()
    await library.save(kind, id, body)
    return id
  }
  /** The plan and all it names, kept. */
  async function keepAll(things: DoorThings): Promise<{ readonly id: string, readonly plan: Plan }> {
    const { plan, bucket: { name, size }, bag } = things, { id: _, ...mould } = things.mould
    if (!library.loaded) await library.load()
    const count = plan.fills[0]?.count ?? 1
    const mouldId = await have('mould', { ...mould, note: '', copies: count } as LibraryBodies['mould'], [
      'name', 'volume', 'mouth', 'material',
    ])
    const bucketId = await have('bucket', bucketSchema.parse({ name, vessel: BUCKET_SIZES[size] }), ['vessel'])
    const bagId = bag && await have('bag', bagSchema.parse({ ...bag, note: '' }), ['name', 'classId', 'printed'])
    const id = newId()
    const made = { ...plan, fills: [{ mould: mouldId, count }], bucket: bucketId, bag: bagId }
    await plans.bringIn(id, made)
    return { id, plan: made }
  }
  /** @returns the plan's id. @throws Refused in words */
  const keepIn = async (things: DoorThings): Promise<string> => (await keepAll(things)).id
  /** @returns the pour's id. @throws Refused in words */
  const mixIn = async (things: DoorThings): Promise<string> => planning.toBench(await keepAll(things))
  return { keepIn, mixIn }
}
