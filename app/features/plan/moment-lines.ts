import { expectedDrying } from '~core/drying/expected'
import { endUse } from '~core/gypsum/end-use'
import { plannedStanding } from '~core/plan/standing'
import { castSize } from '~core/plan/batches/coats'
import type { GroundId } from '~core/setting/words'
import type { BubbleWay } from '~core/plan/bubbles'
import type { Batch, MouldFacts, Plan } from '~core/plan/types'
import type { centreMoments, Forecast } from '~core/setting/moments'
import { formatDuration, formatDurationRange, formatFine, formatFineRange, formatTemperature } from '~core/units/format'
import type { UnitPreferences } from '~core/units/units'

/** What to expect of a plan, a line each, counted from the moment powder meets water. */
export interface MomentLine {
  readonly when: string
  readonly what: string
  readonly tone: string
  readonly strong?: boolean
  readonly basis?: string
  /** What it stands on. */
  readonly ground: GroundId
}
interface Range { readonly low: number, readonly high: number }

/** To the ten seconds. */
const at = (seconds: number) => formatDuration(Math.round(seconds / 10) * 10)

const POURED: Readonly<Record<BubbleWay, string>> = {
  tap: 'pour, then tap', brush: 'brush the face, pour', table: 'pour on the table',
}

/** What the hands do until it is poured. */
export function workLines({ school, stir, bubbles = 'tap' }: Plan, { steps }: Batch): readonly MomentLine[] {
  const poured = { when: at(steps.stirred.value), what: POURED[bubbles], tone: 'water', ground: 'steps' } as const
  if (school === 'bag') return [{ when: '0 s', what: 'water in, knead', tone: 'water', ground: 'steps' }, poured]
  const stirred = `stir ${formatDuration(stir.minutes * 60)}`
  if (school === 'powder-first') return [
    { when: '0 s', what: 'most of the water in', tone: 'water', ground: 'steps' },
    { when: at(steps.sifted.value), what: `${stirred}, water until it runs`, tone: 'ink', ground: 'steps' },
    poured,
  ]
  return [
    { when: '0 s', what: school === 'dumped' ? 'powder in at once' : 'sift in, still water', tone: 'powder', ground: 'steps' },
    { when: at(steps.sifted.value), what: 'soak, hands off', tone: 'ink', ground: 'steps' },
    { when: at(steps.soaked.value), what: stirred, tone: 'ink', ground: 'steps' },
    poured,
  ]
}

interface Outlook {
  readonly centre: ReturnType<typeof centreMoments>
  /** Ranges come a moment after the centre values. */
  readonly moments?: Forecast['moments']
  readonly bubble?: Range
  /** How bubbles are driven out. */
  readonly way?: BubbleWay
}

/** What the mix does from then on. */
export function momentLines(outlook: Outlook, units: UnitPreferences): readonly MomentLine[] {
  const { centre: c, moments: m, bubble, way } = outlook
  const span = (e: Range | undefined, value: number) => e ? formatDurationRange(e.low, e.high) : at(value)
  const cleared = bubble && Number.isFinite(bubble.high)
    ? formatFineRange(bubble.low, bubble.high, units)
    : formatFine(c.bubble, units)
  const degrees = (t: number) => formatTemperature(t, units)
  const heat = m
    ? `${degrees(m.warmestTemperature.low)} to ${degrees(m.warmestTemperature.high)}`
    : degrees(c.warmestTemperature)
  return [
    { when: span(m?.pourBy, c.pourBy), what: 'too stiff to pour', tone: 'mix', ground: 'pour-by', basis: m?.pourBy.basis.note },
    ...way === 'brush'
      ? []
      : [{
          when: span(m?.tapUntil, c.tapUntil),
          what: `${way === 'table' ? 'table off' : 'stop tapping'}: only bubbles under about ${cleared} are left`,
          tone: 'air',
          ground: 'tap-until' as const,
          basis: m?.tapUntil?.basis.note,
        }],
    { when: span(m?.glossGone, c.glossGone), what: 'gloss goes', tone: 'ink', ground: 'gloss', basis: m?.glossGone.basis.note },
    { when: span(m?.warmest, c.warmest), what: `warmest, ${heat} inside`, tone: 'heat', ground: 'warmest', basis: m?.warmest.basis.note },
    {
      when: m ? formatDurationRange(m.open.from, m.open.to) : 'a moment',
      what: 'open the moulds',
      tone: 'set',
      ground: 'open',
      strong: true,
      basis: m?.open.basis.note,
    },
  ]
}

/** When it is dry enough for its use, after opening; of the cast that takes longest to open. */
export function dryLine(plan: Plan, { mix }: Batch, mould: MouldFacts, day?: number): MomentLine {
  const { dryTo, dryWord } = endUse(plan.endUse)
  const drying = expectedDrying(mix, castSize(plan, mould), dryTo!, plannedStanding(plan, day))
  if (drying.notHere)
    return { when: 'not here', what: `${dryWord}: it does not dry where it is to stand`, tone: 'heat', ground: 'dry', basis: drying.basis.note }
  const hours = (t: number) => Math.round(t / 3600) * 3600
  return {
    when: formatDurationRange(hours(drying.low), hours(drying.high)),
    what: `after opening: ${dryWord}`,
    tone: 'ink',
    ground: 'dry',
    basis: drying.basis.note,
  }
}
