import { restorePours, type WholePour } from '../store/restoring'
import type { Lots } from './lots'

/** Writes a lot of whole pours, whatever file they are of, in a transaction of its own. */
export async function writePourLot(lots: Lots, share: number, pours: readonly WholePour[]): Promise<void> {
  if (pours.length === 0) return
  const entries = pours.reduce((sum, p) => sum + p.entries.length, 0)
  await lots.write(share, async (inner) => {
    const last = await restorePours(inner, pours)
    return [...last].map(([id, version]) => ({ kind: 'pour', id, version }))
  }, { pours: pours.length, entries })
}
