import type { CubicMetres, Kilograms, Seconds, WaterRatio } from '../units/quantity'
import { formatConsistency, formatDuration, formatMass, formatVolume } from '../units/format'
import { METRIC, type UnitPreferences } from '../units/units'
import { solveMix } from '../gypsum/mix'
import { powderClass } from '../gypsum/powders'
import type { Instant } from '../pour/events'
import { momentsInput } from '../plan/plan'
import type { FrozenRun } from '../plan/run'
import type { PourState } from '../pour/fold'
import { centreMoments } from '../setting/moments'
import type { TroubleId } from '../pour/troubles'

/**
 * When it goes wrong: the best thing to do now, from the state of this pour. Common practice, no source, but where
 * numbers are worked out.
 */

export interface Advice {
  /** What to do, in order; the first is for now. */
  readonly steps: readonly string[]
  readonly why: string
  /** What makes it worse. */
  readonly never?: string
  /** Water and powder of a further mix, when one helps. */
  readonly mix?: { readonly water: Kilograms, readonly powder: Kilograms }
}

/** A tenth more than is missing. */
const SPARE = 1.1
/** A small mix is all in, wetted and stirred in about this (engineering guess). */
const QUICK_MIX: Seconds = 180

interface Facts {
  readonly now: Instant
  readonly batch: number
  readonly prefs?: UnitPreferences
  /** How much is missing, m3; what the unfilled moulds still take unless it is said. */
  readonly missing?: CubicMetres
}

/** @returns what to do now. The run's moments should be those that were learnt. */
export function rescue(
  trouble: TroubleId,
  run: FrozenRun,
  state: PourState,
  { now, batch: b, prefs = METRIC, missing }: Facts,
): Advice {
  const batch = state.batches[b]!, planned = run.batches[b]!, powder = powderClass(run.plan.classId)
  const wetFor: Seconds | undefined = batch.wetAt === undefined ? undefined : (now - batch.wetAt) / 1000
  const moulds = planned.fills.map(f => f.mould)
  const slowest = moulds.reduce((a, m) => run.moments[m.id]!.open.from > run.moments[a.id]!.open.from ? m : a)
  const moments = run.moments[slowest.id]!
  const unfilled = state.casts.filter(c => c.cast.batch === b && c.filledAt === undefined)
  const ratio: WaterRatio = batch.ratio ?? run.ratio.value
  const stage = state.steps[batch.step ?? state.step]?.stage
  const inBucket = stage === 'sift' || stage === 'soak' || stage === 'stir' || stage === 'fill'
  const left = (at: Seconds) =>
    wetFor === undefined ? '' : formatDuration(Math.max(0, Math.round((at - wetFor) / 5) * 5))

  switch (trouble) {
    case 'too-fast': {
      if (!inBucket)
        return {
          steps: [
            'Leave it alone: what is in the moulds is fine.',
            `Open by touch rather than by the clock: it may be ready from ${
              formatDuration(moments.openEarliest.low, 'minute')
            } after wetting.`,
            ...warmer(run),
          ],
          why: 'Set once, it is as strong whether it set fast or slowly; only bubbles and detail suffer from haste.',
        }
      const order = unfilled.length > 0
        ? `Fill now, thinnest and most detailed first: ${unfilled.slice(0, 3).map(c => c.cast.label).join(', ')}.`
        : 'Pour what flows now, into the most detailed places first.'
      return {
        steps: wetFor !== undefined && wetFor > moments.pourBy.value
          ? [
              'Stop: it no longer levels itself. Press what is thick into open moulds and backs only.',
              'Let the rest set in the bucket, then bin it.',
              ...warmer(run),
            ]
          : [
              'Stop stirring.',
              order,
              `You have about ${left(moments.pourBy.low)} to ${left(moments.pourBy.high)}.`,
              ...warmer(run),
            ],
        why: 'Each further turn of the stick makes more seeds and takes time away.',
        never: 'No more water: it does not bring time back, it only makes a weak, chalky face.',
      }
    }
    case 'will-not-set': {
      const late = moments.glossGone.high
      if (wetFor !== undefined && wetFor < late)
        return {
          steps: [
            `Wait: gloss may go as late as ${formatDuration(late, 'minute')} after wetting, ${left(late)} from now.`,
            'Keep it still, out of draught, and warm the room if it is cold.',
          ],
          why: 'This is still within its range.',
        }
      const reasons: string[] = []
      if (ratio > run.ratio.value * 1.05)
        reasons.push(
          `it is thinner than planned (${formatConsistency(ratio)} for ${formatConsistency(run.ratio.value)})`,
        )
      if (run.plan.roomTemperature < 12 || run.plan.waterTemperature < 10) reasons.push('it is cold')
      if (run.plan.additions.some(a => (a.id === 'citrate' || a.id === 'borax') && a.share > 0))
        reasons.push('a retarder is in it')
      if (run.world.bag?.uncertain) reasons.push('the bag is old or unknown')
      return {
        steps: [
          'Cover it and bring it to 20 to 25 °C; warm air, not a flame or an oven.',
          `Look again in half an hour. If a nail still goes in after ${
            formatDuration(Math.max(2 * late, 3600), 'minute')
          }, it will not become sound: take it out, clean the mould, pour again with a fresh bag and a cup test first.`,
        ],
        why: reasons.length > 0
          ? `Likely because ${[reasons.slice(0, -1).join(', '), reasons.at(-1)].filter(Boolean).join(' and ')}.`
          : 'Dead powder, a dirty bag or a retarding release are the usual reasons.',
        never: 'Dry powder sprinkled on, or heat above 45 °C, harden the skin only.',
      }
    }
    case 'lumps':
      if (!inBucket || stage === 'fill')
        return {
          steps: [
            'Pour through a coarse sieve or leave the last of the bucket behind.',
            'In the mould, press the lumps you can see to the back with a wet finger or brush.',
          ],
          why: 'Stirring now would cost more time than the lumps cost strength.',
        }
      return {
        steps: [
          stage === 'soak'
            ? 'Let it soak for another minute; hands off.'
            : 'Crush the lumps between your fingers against the side of the bucket, under the surface.',
          'What stays dry inside is lifted out, not beaten in.',
        ],
        why: 'Lumps are powder that went in too fast to be wet through.',
        never: 'No whisk at full speed: it makes bubbles and takes minutes off the pouring time.',
      }
    case 'leak': {
      const stiff = wetFor !== undefined && wetFor > moments.webbing.value
      return {
        steps: [
          stiff
            ? 'Hold a wad of soft clay or a wet rag on it for a minute: it is about to stop by itself.'
            : 'Press soft clay, or a pinch of plaster powder in a wet finger, on the leak from outside.',
          'Tip the mould so that the leak is uppermost, if it can be without spilling.',
          'When it holds, top up at once from the bucket.',
          'Note where it was: a key, a strap or a bead of clay there before the next pour.',
        ],
        why: stiff ? 'At this stiffness it blocks small gaps by itself.' : 'It is still thin enough to run out.',
        never: 'Do not squeeze the halves together: the cast warps and the leak moves.',
      }
    }
    case 'short': {
      const volume = missing ?? unfilled.reduce((v, c) => v + c.cast.mould.volume.value, 0)
      if (!(volume > 0))
        return {
          steps: ['Say how much is missing, or mark which moulds are filled.'],
          why: 'What to mix depends on it.',
        }
      const mixed = solveMix({
        powder,
        ratio: run.ratio.value,
        waterTemperature: run.plan.waterTemperature,
        additions: run.plan.additions,
      }, { what: 'slurry', amount: volume * SPARE })
      const mix = { water: mixed.water, powder: mixed.powder }
      const amounts = `${formatMass(mix.water, prefs)} water and ${formatMass(mix.powder, prefs)} powder`
      // A second pour knits to the first until that loses its gloss (common practice).
      const until = wetFor === undefined ? undefined : moments.glossGone.low - wetFor - QUICK_MIX
      const intime = until !== undefined && until > 0
      return {
        steps: intime
          ? [
              `Mix ${amounts} now, the same way but quickly: that is the missing ${
                formatVolume(volume, prefs)
              } and a tenth.`,
              `Pour it within ${
                formatDuration(Math.round((until + QUICK_MIX) / 30) * 30)
              }, before the gloss goes; stir the two together a little where they meet.`,
            ]
          : [
              'Let the first pour lose its gloss, then roughen its face with a fork or rasp and wet it until it no longer drinks.',
              `Mix ${amounts}. Brush a thin coat of it on first, then pour the rest.`,
            ],
        why: intime
          ? 'While the first still gives, both set as one.'
          : 'On a set face the second only sticks where the first is rough and wet; on a dry one it loses its water and peels.',
        never: 'Do not thin what is left in the bucket to make it go round.',
        mix,
      }
    }
    case 'water-on-top': {
      const set = wetFor !== undefined && wetFor > moments.glossGone.value
      return set
        ? {
            steps: [
              'Nothing: a little clear water on a set cast is what it did not need. Pour it off.',
              'Expect a softer skin there; scrape it when it is dry.',
            ],
            why: `At ${formatConsistency(ratio)} there is more water than the set plaster holds.`,
          }
        : {
            steps: [
              'Do not stir it in. Draw it off with a sponge at the edge when the mix below has webbed.',
              'Tap gently, once, to close the surface.',
              ratio > run.ratio.value * 1.03
                ? `Next time keep to ${formatConsistency(run.ratio.value)}: this is ${formatConsistency(ratio)}.`
                : 'Next time a little thicker, or stir half a minute longer.',
            ],
            why: 'The powder settles until it stiffens, and the water rises.',
            never: 'No dry powder on top: it makes a crust over a weak layer.',
          }
    }
    case 'frozen-in': {
      const ground = moulds.some(m => m.material === 'ground')
      return {
        steps: [
          ground ? 'Cut a spade’s width around it and lift it with its soil, on a board.' : 'Leave it in its mould.',
          'Let it stand in a cool room for an hour, then pour hand-warm water (up to 40 °C) along its edge until it comes free.',
          'Dry it slowly, on a rack; look at it before it is handled.',
        ],
        why: 'Ice between grains holds it; what froze before it had set stays crumbly for good.',
        never: 'No boiling water and no heater: the cast cracks.',
      }
    }
    case 'on-skin':
      return {
        steps: [
          'Eye: rinse with clean running water for fifteen minutes, lids held open, and see a doctor.',
          'Skin: rinse it off while it is wet. Set around a finger or limb, take it off at once, before it warms: cut the mould, break the plaster.',
          'Burnt: cool under running water for twenty minutes and get help.',
        ],
        why: `It gets as warm as ${Math.round(moments.warmestTemperature.high)} °C inside, ${
          formatDuration(moments.warmest.value, 'minute')
        } after wetting, and cannot be pulled off.`,
        never: 'Do not wait for it to cool.',
      }
  }
}

/** What to change so that the next batch is slower, by how much it helps. */
function warmer(run: FrozenRun): string[] {
  const powder = powderClass(run.plan.classId), mould = run.world.moulds[0]
  if (!mould || run.plan.waterTemperature < 13) return []
  const input = (t: number) =>
    centreMoments({
      ...momentsInput({ ...run.plan, waterTemperature: t }, run.ratio, mould, 180, run.world.bag),
      powder,
    })
  const gained = input(10).pourBy - input(run.plan.waterTemperature).pourBy
  return gained > 20
    ? [
        `Next time: water at 10 °C gives about ${
          formatDuration(Math.round(gained / 10) * 10)
        } more, a clean bucket more than that.`,
      ]
    : []
}
