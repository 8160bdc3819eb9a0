import { within } from '../units/sentences'
import type { Cue, CueKind } from './cues'

/** What is told at the moments of a pour, also far from the bench. Nothing reads these sentences. */

/** What is said at a moment, and one or two words for where there is little room. Coats count from the one told of. */
const CUES: Readonly<Record<CueKind, readonly [said: string | ((coat: number) => string), short: string]>> = {
  sift: ['The powder should be in. Let it soak.', 'powder in'],
  soak: ['Soaked. Start stirring.', 'stir'],
  stir: ['Start pouring.', 'pour'],
  fill: ['It should all be poured.', 'poured'],
  set: ['The gloss should be going now.', 'gloss'],
  warm: ['About its warmest now.', 'warmest'],
  open: ['The moulds can be opened now.', 'open'],
  hurry: ['One minute left to pour.', '1 min left'],
  late: ['Stop if it no longer flows.', 'too stiff'],
  tap: ['Stop tapping now.', 'stop tapping'],
  table: ['Table off now.', 'table off'],
  back: ['Soft enough now for a hanger, the day and your initials.', 'hanger, day'],
  mix: [coat => `Start mixing coat ${coat + 1} now.`, 'mix'],
  stands: [coat => `Coat ${coat} should stand now: coat ${coat + 1} can go on.`, 'next coat'],
  bond: [coat => `Coat ${coat} is losing its gloss: put coat ${coat + 1} on now, or score and wet it.`, 'last call'],
}
/** Kinds whose sentence names its coat itself. */
const NAMES_ITSELF: ReadonlySet<CueKind> = new Set<CueKind>(['mix', 'stands', 'bond'])

const NAMES = { batch: 'Bucket', coat: 'Coat' } as const

/** As it is spoken: “Bucket 2. Start pouring.”, or ahead of its moment “In 10 seconds: bucket 2, start pouring.” */
export function cueWords({ kind, batch, named, lead }: Pick<Cue, 'kind' | 'batch' | 'named' | 'lead'>): string {
  const [said] = CUES[kind], words = typeof said === 'string' ? said : said(batch + 1)
  const name = named && !NAMES_ITSELF.has(kind) ? `${NAMES[named]} ${batch + 1}` : undefined
  if (lead) return `In ${lead} seconds: ${name ? `${name}, ` : ''}${within(words)}`
  return name ? `${name}. ${words}` : words
}

const AHEAD: Readonly<Record<CueKind, string | ((coat: number) => string)>> = {
  sift: 'Finish sifting',
  soak: 'Start stirring',
  stir: 'Start pouring',
  fill: 'All poured',
  set: 'The gloss goes',
  warm: 'At its warmest',
  open: 'Open the moulds',
  hurry: 'One minute left to pour',
  late: 'Too stiff to pour',
  tap: 'Stop tapping',
  table: 'Table off',
  back: 'Soft enough for a hanger and the day',
  mix: coat => `Start mixing coat ${coat + 1}`,
  stands: coat => `Coat ${coat} stands`,
  bond: coat => `Coat ${coat} loses its gloss`,
}
/** What comes, before “in 3 min”: without the name of its batch. */
export function cueAhead({ kind, batch }: Pick<Cue, 'kind' | 'batch'>): string {
  const words = AHEAD[kind]
  return typeof words === 'string' ? words : words(batch + 1)
}

export const cueShort = ({ kind }: Pick<Cue, 'kind'>) => CUES[kind][1]
