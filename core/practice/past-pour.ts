import { evenDepth, safeHeight, vesselVolume } from '../mould/gauge/vessel'
import type { FrozenRun } from '../plan/run'
import type { PourState } from '../pour/fold'
import type { Bowl } from './scenarios'
import type { PracticeMould } from './types'

/**
 * A pour of the logbook as a bucket to practise on: its powder, bucket, moulds and warmth, its weights as they were
 * really weighed; and what its marks told of the bag is the hidden truth.
 */

/** A bag that told of itself is known about so well; one that did not is as its class. */
const KNOWN = 0.08
/** Without a bucket of its own: one that the mix fills half, as wide as high. */
const EMPTY_AGAIN = 2
/** An expert goes on until it is smooth, so much longer than planned at most; and taps so long, s. */
const LONGER = 1.8, TAPS = 60

function mouldsOf({ batches, moments }: FrozenRun): PracticeMould[] {
  return batches[0]!.fills.map(({ mould, copies }) => {
    const volume = mould.volume.value, height = evenDepth(mould.mouth, volume), open = moments[mould.id]?.openEarliest
    return {
      id: mould.id, count: copies, volume, height, section: mould.section, material: mould.material,
      face: mould.face ?? 6 * volume ** (2 / 3), fragile: mould.fragile, ...open && { notBefore: open.value },
    }
  })
}

/** @returns undefined for what is no bucket poured into moulds: coats, casts swilled, records of a day alone */
export function bowlOfPour(run: FrozenRun, state: PourState): Bowl | undefined {
  const { plan, world, batches } = run, [batch] = batches, [was] = state.batches
  if (!batch || !was || plan.coats || run.daysOnly || batch.back !== undefined) return undefined
  const powder = was.weighed.powder ?? batch.mix.powder, water = was.weighed.water ?? batch.mix.water
  const mixed = batch.castVolume * (1 + plan.losses), vessel = world.bucket?.vessel
  const holds = vessel ? vesselVolume(vessel, safeHeight(vessel)) : EMPTY_AGAIN * mixed
  const width = vessel ? vessel.top : Math.cbrt(4 * holds / Math.PI)
  const taught = was.foreseen?.taught, celsius = was.water ?? plan.waterTemperature
  const soak = plan.soakMinutes * 60, stir = plan.stir.minutes * 60, sift = batch.steps.sifted.value
  const whole = plan.school === 'dumped' || plan.school === 'bag' || plan.school === 'powder-first'
  const handfuls = whole ? 1 : Math.max(8, Math.min(40, Math.round(powder / 0.05)))
  const moulds = mouldsOf(run)
  return {
    setup: {
      powder: plan.classId, vessel: { width, holds: Math.max(holds, 1.2 * mixed) }, moulds,
      room: was.room ?? plan.roomTemperature, plan: { powder, ratio: water / powder, water: celsius, soak, stir },
      hidden: {
        additions: plan.additions,
        ...taught && { rate: Math.exp(taught.mean), rateSd: Math.min(KNOWN, taught.sd) },
      },
    },
    expert: {
      water: { kg: water, celsius }, soak, order: moulds.map(m => m.id), tap: TAPS,
      strew: { kg: powder, handful: powder / handfuls, every: Math.max(1, sift / handfuls), ...whole && { how: 'whole' } },
      stir: { tool: plan.stir.tool, most: LONGER * stir },
    },
  }
}
