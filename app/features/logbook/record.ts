import { place, standingNow } from '~core/drying/places'
import { defectWords, troubleWords } from '~core/pour/defects'
import { standing, type HappeningKind, type PourEvent } from '~core/pour/events'
import { measureName } from '~core/logbook/words'
import { causeWords } from '~core/pour/causes'
import { SIGNS } from '~core/plan/stages'
import { foldPour } from '~core/pour/fold'
import { castsOf, type FrozenRun } from '~core/plan/run'
import { formatDuration, formatFine, formatMass, formatTemperature } from '~core/units/format'
import type { UnitPreferences } from '~core/units/units'

const STAGE: Record<string, string> = {
  'ready': 'Readying began',
  'weigh': 'Weighing began',
  'sift': 'Powder met water',
  'soak': 'Soak began',
  'stir': 'Stirring began',
  'fill': 'Pouring began',
  'clean-up': 'All poured',
  'set': 'Left to set',
  'gauge': 'Gauged',
  'dry': 'Drying began',
}
const PLACE = { overflow: 'into the overflow mould', bin: 'set and binned', none: 'nothing was left' } as const

/** What an entry is said with: its cast or batch as it is called, and the workshop's units. */
interface With { readonly cast: string, readonly batch: string, readonly units: UnitPreferences }
type Saying<K extends HappeningKind> = (data: DataOf<K>, using: With) => string
type DataOf<K extends HappeningKind> = Extract<PourEvent, { readonly kind: K }>['data']

const small = (words: string) => words.toLowerCase()
const WHERE = { cast: 'in the cast', room: 'in the room', water: 'in the water' } as const
const SAYINGS: { readonly [K in HappeningKind]: Saying<K> } = {
  'stage': ({ stage }, { batch }) => batch + (STAGE[stage] ?? stage),
  'weighed': ({ mass, what }, { batch, units }) => `${batch}${formatMass(mass, units)} of ${what}`,
  'jug': ({ when, mass }, { batch, units }) =>
    `${batch}${mass > 0 ? formatMass(mass, units) : 'Nothing'} ${when === 'before' ? 'of water in the jug' : 'left in the jug'}`,
  'mark': ({ sign }, { batch }) => `${batch}${SIGNS.find(s => s.id === sign)?.words ?? sign}`,
  'temperature': ({ celsius, where }, { batch, units }) =>
    `${batch}${formatTemperature(celsius, units)} ${WHERE[where]}`,
  'foreseen': ({ open }, { batch }) => {
    const from = Math.min(...Object.values(open).map(o => o.from))
    return `${batch}Forecast: open from ${formatDuration(from, 'minute')} after wetting`
  },
  'trouble': ({ trouble }, { batch }) => `${batch}Trouble: ${small(troubleWords(trouble))}`,
  'filled': (_, { cast }) => `${cast} filled`,
  'leftover': ({ where }, { batch }) => `${batch}Leftover: ${PLACE[where]}`,
  'cleaned': (_, { batch }) => `${batch}Bucket clean`,
  'note': ({ text }) => `“${text}”`,
  'opened': (_, { cast }) => `${cast} opened`,
  'judged': ({ verdict, defects, note }, { cast }) =>
    `${cast}: ${[verdict, ...defects.map(d => small(defectWords(d)))].join(', ')}${note ? `. “${note}”` : ''}`,
  'faults': ({ marks }, { cast }) => {
    if (marks.length === 0) return `${cast}: no faults drawn any more`
    const kinds = [...new Set(marks.map(m => small(defectWords(m.defect))))].join(', ')
    return `${cast}: ${marks.length} ${marks.length === 1 ? 'fault' : 'faults'} drawn, ${kinds}`
  },
  'measured': ({ what, value, nominal }, { cast, units }) =>
    `${cast}: ${small(measureName(what))} ${formatFine(value, units)}${nominal ? `, model ${formatFine(nominal, units)}` : ''}`,
  'cause': ({ defect, cause }, using) =>
    `${using.cast}: ${small(defectWords(defect))} came of: ${small(causeWords(cause))}`,
  'placed': (told, { cast, units }) => {
    const { place: where, air } = standingNow(told)
    return `${cast}: ${small(place(where).name)}, ${formatTemperature(air.celsius, units)}, ${
      Math.round(100 * air.humidity)
    } % damp`
  },
  'cast-weighed': ({ mass }, { cast, units }) => `${cast} weighs ${formatMass(mass, units)}`,
  'felt': ({ how }, { cast }) => `${cast} ${how === 'cold' ? 'is still cold to the cheek' : 'feels dry'}`,
  'wetted': (_, { cast }) => `${cast} wetted again`,
  'finished': (_, { cast }) => `${cast} finished`,
  'abandoned': ({ reason }) => `Given up${reason ? `: ${reason}` : ''}`,
  'undo': () => 'An entry was taken back',
}

/** One entry of a pour in words. */
export function entryWords(event: PourEvent, run: FrozenRun, units: UnitPreferences): string {
  const id = 'cast' in event.data ? event.data.cast : undefined
  const cast = castsOf(run).find(c => c.id === id)?.label ?? id ?? ''
  const batch = run.batches.length > 1 && event.batch !== undefined && id === undefined
    ? `${run.plan.coats ? 'Coat' : 'Bucket'} ${event.batch + 1}: `
    : ''
  const say = SAYINGS[event.kind] as (data: PourEvent['data'], using: With) => string
  return say(event.data, { cast, batch, units })
}

export interface Entry {
  readonly event: PourEvent
  readonly words: string
  readonly takenBack: boolean
  /** A step that had begun already when it was told. */
  readonly again: boolean
  readonly late: boolean
  /** By how much its moment may be otherwise, s; nothing where that is sure. */
  readonly doubt?: number
}

/**
 * Every entry in the order of happening, with those that were taken back marked as such and late ones too. Of a pour of
 * the past, what a table told of it.
 */
export function entriesOf(events: readonly PourEvent[], run: FrozenRun, units: UnitPreferences): readonly Entry[] {
  const stands = new Set(standing(events).map(e => e.id)),
    again = new Set(foldPour(run, events).repeats.map(e => e.id))
  return [...events].filter(e => !run.daysOnly || e.kind !== 'stage').sort((a, b) => a.happenedAt - b.happenedAt)
    .map(event => ({
      event,
      words: entryWords(event, run, units),
      takenBack: !stands.has(event.id),
      again: again.has(event.id),
      late: !run.daysOnly && event.recordedAt - event.happenedAt > 45_000,
      ...event.doubt !== undefined && { doubt: event.doubt / 1000 },
    }))
}
