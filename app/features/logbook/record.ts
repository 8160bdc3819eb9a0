import { place } from '~core/drying/cast'
import { defectWords } from '~core/pour/defects'
import type { PourEvent } from '~core/pour/events'
import { standing } from '~core/pour/events'
import { troubleWords } from '~core/pour/troubles'
import { causeWords } from '~core/pour/causes'
import { SIGNS } from '~core/plan/stages'
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

/** One entry of a pour in words. */
export function entryWords(event: PourEvent, run: FrozenRun, units: UnitPreferences): string {
  const cast = 'cast' in event.data
    ? castsOf(run).find(c => c.id === (event.data as { cast: string }).cast)?.label ?? event.data.cast
    : ''
  const batch = run.batches.length > 1 && event.batch !== undefined && !cast
    ? `${run.plan.coats ? 'Coat' : 'Batch'} ${event.batch + 1}: `
    : ''
  switch (event.kind) {
    case 'stage':
      return batch + (STAGE[event.data.stage] ?? event.data.stage)
    case 'weighed':
      return `${batch}${formatMass(event.data.mass, units)} of ${event.data.what}`
    case 'mark':
      return `${batch}${SIGNS.find(s => s.id === event.data.sign)?.words ?? event.data.sign}`
    case 'temperature':
      return `${batch}${formatTemperature(event.data.celsius, units)} ${
        { cast: 'in the cast', room: 'in the room', water: 'in the water' }[event.data.where]
      }`
    case 'foreseen':
      return `${batch}Forecast: open from ${
        formatDuration(Math.min(...Object.values(event.data.open).map(o => o.from)), 'minute')
      } after wetting`
    case 'trouble':
      return `${batch}Trouble: ${troubleWords(event.data.trouble).toLowerCase()}`
    case 'filled':
      return `${cast} filled`
    case 'leftover':
      return `${batch}Leftover: ${PLACE[event.data.where]}`
    case 'cleaned':
      return `${batch}Bucket clean`
    case 'note':
      return `“${event.data.text}”`
    case 'opened':
      return `${cast} opened`
    case 'judged':
      return `${cast}: ${event.data.verdict}${
        event.data.defects.length ? `, ${event.data.defects.map(d => defectWords(d).toLowerCase()).join(', ')}` : ''
      }${event.data.note ? `. “${event.data.note}”` : ''}`
    case 'faults':
      return event.data.marks.length === 0
        ? `${cast}: no faults drawn any more`
        : `${cast}: ${event.data.marks.length} ${event.data.marks.length === 1 ? 'fault' : 'faults'} drawn, ${
          [...new Set(event.data.marks.map(m => defectWords(m.defect).toLowerCase()))].join(', ')
        }`
    case 'measured':
      return `${cast}: ${event.data.what.toLowerCase()} ${formatFine(event.data.value, units)}${
        event.data.nominal ? `, model ${formatFine(event.data.nominal, units)}` : ''
      }`
    case 'cause':
      return `${cast}: ${defectWords(event.data.defect).toLowerCase()} came of: ${
        causeWords(event.data.cause).toLowerCase()
      }`
    case 'placed':
      return `${cast}: ${place(event.data.place).name.toLowerCase()}, ${
        formatTemperature(event.data.air.celsius, units)
      }, ${Math.round(100 * event.data.air.humidity)} % damp`
    case 'cast-weighed':
      return `${cast} weighs ${formatMass(event.data.mass, units)}`
    case 'felt':
      return `${cast} ${event.data.how === 'cold' ? 'is still cold to the cheek' : 'feels dry'}`
    case 'wetted':
      return `${cast} wetted again`
    case 'finished':
      return `${cast} finished`
    case 'abandoned':
      return `Given up${event.data.reason ? `: ${event.data.reason}` : ''}`
    case 'undo':
      return 'An entry was taken back'
  }
}

export interface Entry {
  readonly event: PourEvent
  readonly words: string
  readonly takenBack: boolean
  readonly late: boolean
}

/**
 * Every entry in the order of happening, with those that were taken back marked as such and late ones too. Of a pour of
 * the past, what a table told of it.
 */
export function entriesOf(events: readonly PourEvent[], run: FrozenRun, units: UnitPreferences): readonly Entry[] {
  const stands = new Set(standing(events).map(e => e.id))
  return [...events].filter(e => !run.daysOnly || e.kind !== 'stage').sort((a, b) => a.happenedAt - b.happenedAt)
    .map(event => ({
      event,
      words: entryWords(event, run, units),
      takenBack: !stands.has(event.id),
      late: !run.daysOnly && event.recordedAt - event.happenedAt > 45_000,
    }))
}
