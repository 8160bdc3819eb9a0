import { randomUUID } from 'node:crypto'
import { MOULD_MATERIALS } from '~core/setting/body'
import { pastHappenings, pastPlan } from '~core/formats/past'
import { freezing, type FrozenRun } from '~core/plan/run'
import { problemWords } from '~core/plan/words'
import type { ImportRows } from '~contract/import'
import { LIBRARY, type BagBody, type MouldBody } from '~contract/library'
import { sentEventSchema } from '~contract/pour'
import { ITEMS } from '~contract/versions'
import { worldOf } from '../store/library'
import type { WholePour } from '../store/restoring'
import type { Scope } from '../store/scope'
import { frozenBetweenOthers } from '../freezing'
import { Refused } from '../refused'
import { LOT, type Lots } from './lots'
import { writePourLot } from './pour-lot'

/** A row that the workshop cannot take, by its place from 0; nothing was written. */
const rowRefused = (place: number, sentence: string) => new Refused('row', `rows.${place}`, sentence)

/**
 * Takes rows of a table into the workshop. All of them are looked through first: a row that cannot be is named, and
 * nothing is written. @throws Refused, GivenUp
 */
export async function importRows(lots: Lots, table: ImportRows, actor: string, now: number): Promise<void> {
  if (table.kind !== 'pours') return importItems(lots, table, now)
  const pours = await pastPours(lots, table.rows, actor, now)
  for (let i = 0; i < pours.length; i += LOT) await writePourLot(lots, i / pours.length, pours.slice(i, i + LOT))
}

/** Moulds or bags: at most a thousand rows without entries, in one transaction. */
async function importItems(lots: Lots, table: Exclude<ImportRows, { kind: 'pours' }>, now: number): Promise<void> {
  const kind = table.kind === 'moulds' ? 'mould' : 'bag', bodies = bodiesOf(table, now)
  bodies.forEach((body, i) => {
    const parsed = LIBRARY[kind].safeParse(body)
    if (!parsed.success) throw rowRefused(i, parsed.error.issues[0]!.message)
  })
  const rows = bodies.map(body => ({
    id: randomUUID(),
    kind,
    schema_version: ITEMS[kind].version,
    body: JSON.stringify(body),
    archived_at: null,
  } as const))
  await lots.write(0, async (inner) => {
    await inner.insert('library_item', rows).execute()
    return rows.map(({ id }) => ({ kind: 'item', id, version: 1 }))
  }, { [table.kind]: rows.length })
}

function bodiesOf(table: Exclude<ImportRows, { kind: 'pours' }>, now: number): (MouldBody | BagBody)[] {
  if (table.kind === 'moulds') return table.rows.map(mouldBody)
  return table.rows.map(row => ({
    ...row,
    uncertain: false,
    leftAt: row.left === undefined ? undefined : Math.round(now),
  }))
}

/**
 * A mould of which only the volume is known: as wide as it is deep, and as thick inside as such a one is. To be gauged
 * better later.
 */
function mouldBody({ volume, ...row }: (ImportRows & { kind: 'moulds' })['rows'][number]): MouldBody {
  const side = Math.cbrt(volume)
  return {
    ...row,
    volume: { value: volume, low: 0.95 * volume, high: 1.05 * volume },
    mouth: { shape: 'round', width: Math.min(5, 1.1 * side), length: Math.min(5, 1.1 * side) },
    wall: MOULD_MATERIALS[row.material].usualWall,
    section: Math.min(1, 0.5 * side),
    fragile: false,
  }
}

type PourRows = (ImportRows & { kind: 'pours' })['rows']

/** The run of a row: that of the model, frozen as if it had been planned. @throws Refused */
async function runOf(scope: Scope, row: PourRows[number], place: number, now: number): Promise<FrozenRun> {
  const { moulds: [mould], bag } = await worldOf(
    scope,
    { fills: [{ mould: row.mould, count: 1 }], bag: row.bag },
    now,
  )
  if (!mould) throw rowRefused(place, 'This mould is not in the library any more.')
  const { plan, world } = pastPlan(row, mould, bag), frozen = await frozenBetweenOthers(freezing(plan, world))
  if (!frozen.ok)
    throw rowRefused(
      place,
      frozen.problems[0] ? problemWords(frozen.problems[0]) : 'Nobody can have poured that.',
    )
  return { ...frozen.run, daysOnly: true }
}

async function pastPours(lots: Lots, rows: PourRows, actor: string, now: number): Promise<WholePour[]> {
  // Rows that are alike share one run: forecasts take their time.
  const runs = new Map<string, FrozenRun>(), pours: WholePour[] = []
  for (const [place, row] of rows.entries()) {
    await lots.told('checking', place / rows.length)
    const key = JSON.stringify([
      row.mould,
      row.bag,
      row.classId,
      row.pieces,
      row.water && row.powder && Math.round(100 * row.water / row.powder),
    ])
    const run = runs.get(key) ?? await runOf(lots.scope, row, place, now)
    runs.set(key, run)
    pours.push(pastPour(row, run, actor, now))
  }
  return pours
}

function pastPour(row: PourRows[number], run: FrozenRun, actor: string, now: number): WholePour {
  const entries = pastHappenings(row, run).map(({ at, batch, what }, i) => ({
    event: sentEventSchema.parse({
      ...what,
      id: randomUUID(),
      version: 1,
      batch,
      happenedAt: at,
      recordedAt: Math.round(now),
      device: 'table',
      deviceSeq: i,
    }),
    actor,
    skewMs: 0,
    receivedAt: new Date(),
  }))
  return { id: randomUUID(), run, startedBy: actor, createdAt: new Date(), entries }
}
