import { randomUUID } from 'node:crypto'
import { MOULD_MATERIALS } from '~core/setting/body'
import { pastHappenings, pastPlan } from '~core/formats/past'
import { freezing, type FrozenRun } from '~core/plan/run'
import { problemWords } from '~core/plan/words'
import type { ImportRows } from '~contract/import'
import { LIBRARY, type BagBody, type MouldBody } from '~contract/library'
import { sentEventSchema } from '~contract/pour'
import { ITEMS } from '~contract/versions'
import { announceAll } from './store/announce'
import { worldOf } from './store/library'
import { restorePours, type WholePour } from './store/restoring'
import type { Scope } from './store/scope'
import { frozenBetweenOthers } from './freezing'
import { Refused } from './refused'

/** A row that the workshop cannot take, by its place from 0; nothing was written. */
const rowRefused = (place: number, sentence: string) => new Refused('row', `rows.${place}`, sentence)

const POURS_AT_ONCE = 50

/** Takes rows of a table into the workshop, all of them or none. @throws Refused */
export async function importRows(
  scope: Scope,
  table: ImportRows,
  actor: string,
  now: number,
  goOn: () => boolean,
): Promise<void> {
  const pours = table.kind === 'pours' ? await pastPours(scope, table.rows, actor, now, goOn) : []
  await scope.transaction(async (inner, trx) => {
    if (table.kind !== 'pours') {
      const bodies = table.kind === 'moulds'
          ? table.rows.map(mouldBody)
          : table.rows.map((row): BagBody => ({
              ...row,
              uncertain: false,
              leftAt: row.left === undefined ? undefined : Math.round(now),
            })),
        kind = table.kind === 'moulds' ? 'mould' : 'bag'
      bodies.forEach((body, i) => {
        const parsed = LIBRARY[kind].safeParse(body)
        if (!parsed.success) throw rowRefused(i, parsed.error.issues[0]!.message)
      })
      await inner.insert(
        'library_item',
        bodies.map(body => ({
          id: randomUUID(),
          kind,
          schema_version: ITEMS[kind].version,
          body: JSON.stringify(body),
          archived_at: null,
        } as const)),
      ).execute()
      await announceAll(trx, scope.workshopId, [{ what: 'library' }])
      return
    }
    for (let i = 0; i < pours.length; i += POURS_AT_ONCE) await restorePours(inner, pours.slice(i, i + POURS_AT_ONCE))
    await announceAll(trx, scope.workshopId, [{ what: 'pours' }])
  })
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

async function pastPours(
  scope: Scope,
  rows: (ImportRows & { kind: 'pours' })['rows'],
  actor: string,
  now: number,
  goOn: () => boolean,
): Promise<WholePour[]> {
  // Rows that are alike share one run: forecasts take their time.
  const runs = new Map<string, FrozenRun>(), pours: WholePour[] = []
  for (const [place, row] of rows.entries()) {
    if (!goOn()) throw rowRefused(place, 'It was given up; nothing was taken in.')
    const key = JSON.stringify([
      row.mould,
      row.bag,
      row.classId,
      row.pieces,
      row.water && row.powder && Math.round(100 * row.water / row.powder),
    ])
    let run = runs.get(key)
    if (!run) {
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
      runs.set(key, run = { ...frozen.run, daysOnly: true })
    }
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
    pours.push({ id: randomUUID(), run, startedBy: actor, createdAt: new Date(), entries })
  }
  return pours
}
