import { settleAll, type Contact, type Reading } from '~core/pour/device-time'
import type { Begun, Waiting } from './outbox'

/** What was told before its time was sure: pours that were begun, and entries, in this device's own order. */
function unsettled(waiting: readonly Waiting[], begun: readonly Begun[]) {
  return [
    ...begun.flatMap(b => b.told ? [{ b, at: b.told, recordedAt: b.start.startedAt, seq: b.start.deviceSeq }] : []),
    ...waiting.flatMap(w => w.told ? [{ w, at: w.told, recordedAt: w.event.recordedAt, seq: w.order }] : []),
  ].sort((a, b) => a.seq - b.seq) as readonly (
    { readonly at: Reading, readonly recordedAt: number } & ({ readonly b: Begun } | { readonly w: Waiting })
  )[]
}

/**
 * All that waits with times that were not sure, put right by what the server and the device's clocks say now.
 * @param contact undefined where time itself may have been moved, as in the demo: then they stay as they are
 */
export function settled(
  waiting: readonly Waiting[],
  begun: readonly Begun[],
  contact: Contact | undefined,
): { readonly waiting: readonly Waiting[], readonly begun: readonly Begun[] } {
  const told = unsettled(waiting, begun),
    by = contact ? settleAll(told, contact) : told.map(() => ({ shift: 0, doubt: 0 })),
    entries: Waiting[] = [], starts: Begun[] = []
  told.forEach((one, i) => {
    const { shift, doubt } = by[i]!, moved = (at: number) => Math.round(at + shift)
    if ('b' in one) {
      const { told: _, ...b } = one.b
      starts.push({ ...b, start: { ...b.start, startedAt: moved(b.start.startedAt) } })
    }
    else {
      const { told: _, ...w } = one.w, { happenedAt, recordedAt } = w.event
      entries.push({
        ...w,
        event: {
          ...w.event,
          happenedAt: moved(happenedAt),
          recordedAt: moved(recordedAt),
          ...doubt >= 1 && { doubt: Math.round(doubt) },
        },
      })
    }
  })
  return { waiting: entries, begun: starts }
}
