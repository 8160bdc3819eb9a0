import type { Instant } from '../pour/events'
import { needOf, type CastSummary } from '../pour/projection'

/** A moment to come, as a calendar has it: casts of one pour and mould that want the same at the same time. */
export interface Coming {
  readonly id: string
  readonly pour: string
  readonly title: string
  readonly note: string
  readonly from: Instant
  readonly to: Instant
}

/** A calendar shows when a piece should be dry as this long an entry, at the late end of its range. */
const SHOWN = 30 * 60_000
/** What lies further off is not a date but a hope. */
const FURTHEST = 60 * 86_400_000

const names = (casts: readonly CastSummary[]) =>
  casts.length === 1 ? casts[0]!.label : `${casts.length} × ${casts[0]!.mould}`

/** What a cast waits for; one that is weighed stands for itself, since its date is its own. */
function kindOf(cast: CastSummary, now: Instant): string | undefined {
  const need = needOf(cast, now)
  if (cast.drying?.notHere && need === 'drying') return undefined
  if (need === 'setting' || need === 'open-now' || need === 'open-late') return 'open'
  if (need !== 'drying' && need !== 'ready-now') return undefined
  return cast.drying?.weighed ? `dry ${cast.id}` : 'dry'
}

/** Moments of casts that are to be opened or will be dry, in the order of time. */
export function comingMoments(
  rows: readonly { readonly pour: string, readonly pourName: string, readonly cast: CastSummary }[],
  now: Instant,
): readonly Coming[] {
  const groups = new Map<string, typeof rows[number][]>()
  for (const row of rows) {
    const kind = kindOf(row.cast, now)
    if (kind === undefined) continue
    const key = [row.pour, row.cast.mouldId, kind, kind === 'open' ? row.cast.openFrom : ''].join(' ')
    groups.set(key, [...groups.get(key) ?? [], row])
  }
  return [...groups.values()].flatMap((group): Coming[] => {
    const { pour, pourName, cast } = group[0]!,
      casts = group.map(g => g.cast),
      id = `${pour}-${casts.map(c => c.id).join('-')}`
    if (cast.openedAt === undefined)
      return [{
        id: `${id}-open`,
        pour,
        title: `Open: ${names(casts)}`,
        note: `${pourName}. Best within this time.`,
        from: cast.openFrom!,
        to: cast.openTo!,
      }]
    const ready = Math.max(...casts.map(c => c.readyTo!))
    if (ready - now > FURTHEST) return []
    return [{
      id: `${id}-dry`,
      pour,
      title: `${names(casts)}: ${cast.readyWord}`,
      note: `${pourName}. Perhaps sooner; weigh it and the date gets better.`,
      from: ready,
      to: ready + SHOWN,
    }]
  }).sort((a, b) => a.from - b.from)
}
