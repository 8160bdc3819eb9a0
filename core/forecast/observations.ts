import { powderClass } from '../gypsum/powders'
import { taughtByPack } from './printed'
import { Z80 } from '../units/quantity'
import { taughtRate } from './bag'
import { TELLING_SIGNS, type Observation, type TellingSign } from './learning'
import type { Taught, BagFacts } from '../plan/types'
import type { Moments, MomentsInput } from '../setting/moments'
import { momentsInput } from '../plan/moments-input'
import type { FrozenRun } from '../plan/run'
import type { BatchState, PourState } from '../pour/fold'

/** What a pour in hand gives to the forecast: what was seen, and what is known better than when it was planned. */

/** A scale at the bench, relative standard deviation of a ratio of two weighings (engineering guess). */
const WEIGHED_SD = 0.012
/** Whether a sign tells of the time. */
export const tells = (sign: string): sign is TellingSign => (TELLING_SIGNS as readonly string[]).includes(sign)

/** Everything that tells how fast this batch is, in the order of time. */
export function observationsOf(state: PourState, b: number): readonly Observation[] {
  const batch = state.batches[b]!, { wetAt } = batch
  if (wetAt === undefined) return []
  const after = (at: number) => (at - wetAt) / 1000
  const seen: Observation[] = batch.marks.flatMap((m): Observation[] =>
    tells(m.sign) ? [{ what: 'mark', sign: m.sign, at: after(m.at) }] : [],
  )
  for (const t of batch.temperatures) seen.push({ what: 'temperature', at: after(t.at), celsius: t.celsius })
  for (const c of state.casts) {
    // Only a look at the cast says whether it was hard when it was opened; a broken or torn one may have been either.
    if (
      c.cast.batch === b && c.openedAt !== undefined && c.verdict && !c.defects.includes('broken-edge')
      && !c.defects.includes('torn')
    ) seen.push({ what: 'opened', at: after(c.openedAt), hard: !c.defects.includes('soft') })
  }
  return seen.filter(o => o.at > 0).sort((x, y) => x.at - y.at)
}

/**
 * The moulds of a batch that differ to the heat, the slowest first, each with the ids it speaks for and its input as it
 * really went so far.
 */
export function learningInputs(
  run: FrozenRun,
  state: PourState,
  b: number,
): readonly { readonly moulds: readonly string[], readonly input: MomentsInput }[] {
  const planned = run.batches[b]!, happened = state.batches[b]!
  const kinds = new Map<string, { moulds: string[], input: MomentsInput, open: number }>()
  for (const { mould } of planned.fills) {
    const key = [mould.material, mould.wall, mould.section, mould.fragile].join()
    const kind = kinds.get(key)
      ?? {
        moulds: [],
        input: asItWent(
          run,
          happened,
          momentsInput(run.plan, run.ratio, mould, planned.steps.soaked.value, run.world, planned),
        ),
        open: run.moments[mould.id]!.open.from,
      }
    kind.moulds.push(mould.id)
    kinds.set(key, kind)
  }
  return [...kinds.values()].sort((x, y) => y.open - x.open)
}

function asItWent(run: FrozenRun, batch: BatchState, input: MomentsInput): MomentsInput {
  const { wetAt, stirAt, ratio } = batch
  const poured = batch.stages.find(s => s.stage === 'fill')
  const known: { -readonly [K in keyof MomentsInput]?: MomentsInput[K] } = {}
  // Nothing tells when a bag that is kneaded was wet through.
  if (wetAt !== undefined && stirAt !== undefined && run.plan.school !== 'bag')
    known.stirFrom = Math.max(0, Math.round((stirAt - wetAt) / 1000))
  const stir = batch.stages.find(s => s.stage === 'stir')
  if (stirAt !== undefined && poured && stir && !poured.inferred && !stir.inferred)
    known.stir = { ...input.stir, minutes: Math.max(0.25, Math.min(15, Math.round((poured.at - stirAt) / 6000) / 10)) }
  if (batch.room !== undefined) known.roomTemperature = batch.room
  if (batch.water !== undefined) known.waterTemperature = batch.water
  if (ratio !== undefined)
    known.ratio = {
      value: ratio,
      low: ratio * Math.exp(-Z80 * WEIGHED_SD),
      high: ratio * Math.exp(Z80 * WEIGHED_SD),
      basis: { kind: 'your own record', note: 'as weighed' },
    }
  return { ...input, ...known }
}

/** A run whose moments for these moulds are what has been learnt. */
export function withMoments(run: FrozenRun, moments: Readonly<Record<string, Moments>>): FrozenRun {
  return { ...run, moments: { ...run.moments, ...moments } }
}

/** A bag with what its pack says and what its pours and its cups taught. @param pours of its pours, the newest first */
export function taughtBag<T extends BagFacts>(bag: T, pours: readonly Taught[]): T & Pick<BagFacts, 'rate'> {
  const own = bag.cups?.length ? [...pours, ...bag.cups].sort((a, b) => (b.at ?? 0) - (a.at ?? 0)) : pours
  // What is printed on it was known before anything else.
  const pack = taughtByPack(bag.classId, bag.printed), taught = pack ? [...own, pack] : own
  const { doubt } = powderClass(bag.classId)
  return taught.length === 0
    ? bag
    : { ...bag, rate: { ...taughtRate(bag.uncertain, taught, doubt?.rate), batches: own.length } }
}

/** What a bag's pours and cups taught: by which share it sets later than its class, sooner when below 0. */
export interface BagShift { readonly later: number, readonly batches: number, readonly cups: number }
export function bagShift({ rate, cups = [] }: Pick<BagFacts, 'rate' | 'cups'>): BagShift | undefined {
  // Set times go with one over the rate.
  if (!rate || rate.batches === 0) return undefined
  return { later: Math.exp(-rate.mean) - 1, batches: rate.batches - cups.length, cups: cups.length }
}
