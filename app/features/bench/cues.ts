import { coatMoment } from '~core/bench/coat-moment'
import type { FrozenRun } from '~core/plan/run'
import { milestonesOf } from '~core/pour/milestones'
import type { PourState } from '~core/pour/fold'

/** Something to be told at a moment of a batch: spoken, sounded or flashed. */
export interface Cue { readonly id: string, readonly at: number, readonly words: string, readonly short: string }

const SAY = {
  sift: ['The powder should be in. Let it soak.', 'powder in'],
  soak: ['Soaked. Start stirring.', 'stir'],
  stir: ['Start pouring.', 'pour'],
  fill: ['It should all be poured.', 'poured'],
  set: ['The gloss should be going now.', 'gloss'],
  warm: ['About its warmest now.', 'warmest'],
  open: ['The moulds can be opened now.', 'open'],
} as const

/**
 * Cues still to come for every batch that is wet, in workshop time (ms). Steps that are done say nothing; the end of
 * the
 * pouring time is announced a minute ahead as well.
 * @param runFor the run as a batch has it by now, with the moments that were learnt.
 */
export function cuesOf(
  run: FrozenRun,
  state: PourState,
  runFor: (batch: number) => FrozenRun = () => run,
): readonly Cue[] {
  const many = run.batches.length > 1
  return state.batches.flatMap((batch, b): Cue[] => {
    if (batch.wetAt === undefined) return []
    const wet = batch.wetAt
    const name = !many ? '' : run.plan.coats ? `Coat ${b + 1}. ` : `Batch ${b + 1}. `
    const list: Cue[] = milestonesOf(runFor(b), state, b).flatMap((m): Cue[] => {
      if (m.id === 'dry' || m.actual !== undefined) return []
      const [words, short] = SAY[m.id]
      return [{ id: `${b}-${m.id}`, at: wet + (m.id === 'open' ? m.low : m.value) * 1000, words: name + words, short }]
    })
    const pourBy = pouringEnds(runFor(b), b)
    if (batch.filledAt === undefined) {
      list.push({
        id: `${b}-hurry`,
        at: wet + (pourBy - 60) * 1000,
        words: `${name}One minute left to pour.`,
        short: '1 min left',
      })
      list.push({
        id: `${b}-late`,
        at: wet + pourBy * 1000,
        words: `${name}Stop if it no longer flows.`,
        short: 'too stiff',
      })
    }
    const coat = coatMoment(runFor(b), state, b + 1, -Infinity)
    if (coat) {
      if (state.batches[b + 1]!.wetAt === undefined)
        list.push({
          id: `${b}-mix`,
          at: Math.max(coat.mixAt, batch.filledAt ?? 0),
          words: `Start mixing coat ${b + 2} now.`,
          short: 'mix',
        })
      list.push({
        id: `${b}-stands`,
        at: coat.from,
        words: `Coat ${b + 1} should stand now: coat ${b + 2} can go on.`,
        short: 'next coat',
      })
      list.push({
        id: `${b}-bond`,
        at: coat.to,
        words: `Coat ${b + 1} is losing its gloss: put coat ${b + 2} on now, or score and wet it.`,
        short: 'last call',
      })
    }
    const tapUntil = tappingEnds(runFor(b), b)
    if (tapUntil !== undefined)
      list.push({ id: `${b}-tap`, at: wet + tapUntil * 1000, words: `${name}Stop tapping now.`, short: 'stop tapping' })
    return list
  }).sort((a, c) => a.at - c.at)
}

/**
 * Cues told so many seconds before their moment, and saying so. A warning that is itself ahead of its moment stays
 * where it is.
 */
export function withLead(cues: readonly Cue[], seconds: number): readonly Cue[] {
  if (seconds === 0) return cues
  return cues.map(c =>
    c.id.endsWith('-hurry')
      ? c
      : {
          ...c,
          at: c.at - seconds * 1000,
          words: `In ${seconds} seconds: ${
            c.words.replace(
              /^((?:Batch|Coat) \d+\. )?(.)/,
              (_, name: string | undefined, first: string) =>
                (name ? name.replace(/\. $/, ', ') : '') + first.toLowerCase(),
            )
          }`,
        },
  )
}

/** Seconds after wetting by which a batch should be poured: the earliest of its moulds. */
export function pouringEnds(run: FrozenRun, batch: number): number {
  return Math.min(...run.batches[batch]!.fills.map(f => run.moments[f.mould.id]!.pourBy.value))
}

/**
 * Seconds after wetting from which tapping no longer helps any of a batch's moulds; runs frozen by an earlier model do
 * not know.
 */
export function tappingEnds(run: FrozenRun, batch: number): number | undefined {
  const ends = run.batches[batch]!.fills.map(f => run.moments[f.mould.id]!.tapUntil?.value)
  return ends.every(e => e !== undefined) ? Math.max(...ends) : undefined
}

/**
 * Cues that fell due between two readings of the clock. After a long gap (a reload, a jump) only the last one is still
 * worth saying.
 */
export function fallenDue(cues: readonly Cue[], before: number, now: number): readonly Cue[] {
  return cues.filter(c => c.at > before && c.at <= now).slice(-1)
}
