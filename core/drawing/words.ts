import type { Seconds } from '../units/quantity'
import { listed } from '../units/sentences'
import { formatDuration, formatDurationRange, formatHalves } from '../units/format'
import type { FormId } from './form-ids'
import type { TapeInput, TapePieceId } from './tape'
import type { WarmthStep } from './warmth'

/** What a form is called where somebody chooses it. */
export const FORM_WORDS: Readonly<Record<FormId, string>> = {
  tile: 'Tile with a raised middle',
  box: 'Box or block',
  tub: 'Tub or disc',
  cup: 'Cup or beaker',
  bowl: 'Bowl or dome',
  bat: 'Flat bat or slab',
  heart: 'Heart',
  star: 'Star',
  rosette: 'Rosette',
  relief: 'Relief',
  face: 'Face or mask',
  hand: 'Hand',
  print: 'Print in the ground',
  stepped: 'Stepped base',
  baluster: 'Turned piece, such as a knob or chess piece',
  sleeve: 'Sleeve or tall skin',
}

/** What it is called where a mould is drawn as its own piece is. */
export const OWN_LOOK = 'Its own model or photo'

/** A setting cast by how warm it is drawn, in a word or two: the same step of the ramp. */
export const WARMTH_WORDS: Readonly<Record<WarmthStep, string>> = {
  0: 'still soft',
  1: 'setting',
  2: 'warming',
  3: 'warm',
  4: 'at its warmest',
  5: 'warm still',
  6: 'cooling',
  7: 'nearly cool',
  8: 'cool',
  9: 'dry',
}

/** What stands on a piece of the tape of time. */
export const TAPE_WORDS: Readonly<Record<TapePieceId, string>> = {
  sift: 'Sift',
  water: 'Water in',
  soak: 'Soak',
  stir: 'Stir',
  knead: 'Knead',
  fill: 'Pour',
  rest: 'Leave it alone',
  open: 'Open',
}

/** A time below the tape: minutes to a half, hours as elsewhere. @param named whether it says what it counts */
export function tapeTime(at: Seconds, named: boolean): string {
  if (at >= 3600) return formatDuration(at, 'minute')
  const minutes = at / 60
  return `${minutes < 10 ? formatHalves(minutes) : Math.round(minutes)}${named ? ' min' : ''}`
}

/** The tape in one sentence, from the same numbers. @param now seconds after powder met water */
export function tapeWords({ acts, open, warmest, stiff }: TapeInput, now?: Seconds): string {
  const time = (t: Seconds) => formatDuration(Math.round(t / 10) * 10)
  const all = [
    ...acts.map(a => `${TAPE_WORDS[a.id].toLowerCase()} until ${time(a.end)}`),
    ...stiff === undefined ? [] : [`maybe too stiff from ${time(stiff)}`],
    ...warmest === undefined ? [] : [`warmest at ${formatDuration(warmest, 'minute')}`],
    ...open ? [`open after ${formatDurationRange(open.from, open.to)}`] : [],
  ]
  const at = now === undefined ? '' : ` It is ${formatDuration(now, 'minute')} now.`
  return `The tape of time, after powder meets water: ${listed(all)}.${at}`
}
