import { canonicalJson } from '~core/formats/canonical'
import type { Plan, Printed } from '~core/plan/types'
import {
  formatConsistency, formatDuration, formatLength, formatMass, formatPercent, formatTemperature, formatVolume,
} from '~core/units/format'
import type { UnitPreferences } from '~core/units/units'
import type { BucketBody, LibraryBodies, MouldBody } from '~contract/library'
import { otherOf, putsAway, type Change, type Target } from '~/sync/kept-changes'

/** Sentences about what waits in this browser, and what was not taken. */

const many = (n: number, one: string, more: string) => `${n} ${n === 1 ? one : more}`

/** @example '3 entries and 1 change' */
export function countWords(entries: number, changes: number): string {
  return [
    ...entries > 0 ? [many(entries, 'entry', 'entries')] : [],
    ...changes > 0 ? [many(changes, 'change', 'changes')] : [],
  ].join(' and ')
}

/** @example '3 entries and 1 change wait' */
export const waitWords = (entries: number, changes: number): string =>
  `${countWords(entries, changes)} ${entries + changes === 1 ? 'waits' : 'wait'}`

/** @example '1 entry was not taken.' */
export const notTakenWords = (entries: number, changes: number): string =>
  `${countWords(entries, changes)} ${entries + changes === 1 ? 'was' : 'were'} not taken.`

const KINDS = { mould: 'a mould', bucket: 'a bucket', bag: 'a bag', order: 'an order', job: 'a job', page: 'a page' } as const
export function kindWords(target: Target): string {
  switch (target.what) {
    case 'item':
      return KINDS[target.kind]
    case 'plan':
      return 'a plan'
    case 'view':
      return 'a view of the logbook'
    case 'photo':
      return 'mould' in target.of ? 'a photo of a mould' : 'a photo of a cast'
    case 'workshop':
      return 'the workshop’s units'
  }
}

/** What it is called, as far as it has a name. */
export function nameWords(change: Change): string {
  const { target, body = otherOf(change), picture } = change,
    name = picture?.caption || (body as { readonly name?: string } | undefined)?.name
  if (name) return name
  return target.what === 'photo' ? 'A photo' : target.what === 'workshop' ? 'Units' : 'Without a name'
}

const PLAN_FIELDS: Record<keyof Plan, string> = {
  name: 'name',
  endUse: 'what it is for',
  fills: 'moulds',
  overflow: 'what takes the rest',
  classId: 'powder',
  bag: 'bag',
  school: 'way of measuring',
  ratio: 'ratio',
  scoop: 'scoop',
  measures: 'scale and jug',
  waterTemperature: 'water’s temperature',
  roomTemperature: 'room’s temperature',
  bucket: 'bucket',
  losses: 'losses',
  soakMinutes: 'soak',
  stir: 'stirring',
  bubbles: 'bubbles',
  hands: 'how many work',
  batchesAtLeast: 'least buckets',
  additions: 'additions',
  groundTemperature: 'ground’s temperature',
  openAfter: 'opening',
  secondCoatAfter: 'second coat',
  coats: 'coats',
  sets: 'where it sets',
  dries: 'where it dries',
  known: 'what is known',
}
type ItemField = { [K in keyof LibraryBodies]: keyof LibraryBodies[K] }[keyof LibraryBodies]
const ITEM_FIELDS: Record<ItemField, string> = {
  name: 'name',
  text: 'what it says',
  questions: 'what it asks',
  kind: 'kind',
  material: 'material',
  volume: 'volume',
  mouth: 'opening',
  wall: 'wall',
  section: 'thickest part',
  fragile: 'whether it is fragile',
  note: 'note',
  gauges: 'gauges',
  face: 'inner face',
  form: 'drawn as',
  looks: 'picture',
  copies: 'how many there are',
  halves: 'parts',
  straps: 'straps',
  cradle: 'cradle',
  pourHole: 'pour hole',
  life: 'life',
  cost: 'cost',
  impression: 'print',
  wear: 'wear',
  vessel: 'size',
  classId: 'powder',
  uncertain: 'whether the powder is certain',
  left: 'what is left',
  leftAt: 'when that was so',
  price: 'price',
  opened: 'day it was opened',
  storage: 'storage',
  printed: 'what is printed on it',
  cups: 'cup tests',
  spreads: 'spread tests',
  bulk: 'weight of a scoop',
  recipe: 'mix',
  lines: 'pieces and moulds',
  due: 'when it is due',
  people: 'people and hours',
  pause: 'break',
  buckets: 'buckets',
  tables: 'tables',
  shelf: 'room for filled moulds',
  opening: 'time to open one',
  finishing: 'time for a back',
  spare: 'spare pieces',
  goal: 'goal',
  pours: 'buckets that were begun',
  steps: 'steps',
  chain: 'what it began from',
  cautions: 'cautions',
  own: 'whether jobs begin from it',
  startedAt: 'when it began',
}

type Say = (value: never, units: UnitPreferences) => string
const yesOrNo = (v: boolean) => v ? 'yes' : 'no'
/** What fits in a line; the rest is only named. */
const SAID: Partial<Record<keyof Plan | ItemField, Say>> = {
  name: String,
  note: (v: string) => v || 'none',
  ratio: (v: number) => formatConsistency(v),
  losses: (v: number) => formatPercent(v),
  waterTemperature: formatTemperature,
  roomTemperature: formatTemperature,
  groundTemperature: formatTemperature,
  soakMinutes: (v: number) => formatDuration(v * 60),
  openAfter: (v: number) => formatDuration(v, 'minute'),
  secondCoatAfter: (v: number) => formatDuration(v, 'minute'),
  volume: ({ value, low, high }: MouldBody['volume'], units) =>
    `${formatVolume(value, units)} (${formatVolume(low, units)} to ${formatVolume(high, units)})`,
  wall: formatLength,
  section: formatLength,
  pourHole: formatLength,
  copies: String,
  halves: String,
  straps: String,
  life: String,
  fragile: yesOrNo,
  cradle: yesOrNo,
  uncertain: (v: boolean) => yesOrNo(!v),
  left: formatMass,
  printed: ({ ratio, working, sets }: Printed) => [
    ...ratio ? [`${formatConsistency(ratio)} to 100`] : [],
    ...working ? [`pours for ${formatDuration(working)}`] : [],
    ...sets ? [`sets in ${formatDuration(sets)}`] : [],
  ].join(', '),
  vessel: (v: BucketBody['vessel'], units) =>
    `${formatLength(v.bottom, units)} to ${formatLength(v.top, units)} across, ${formatLength(v.height, units)} high`,
}

/** A fact in which two versions of one thing differ; what each says of it, where that fits in a line. */
export interface Difference { readonly field: string, readonly mine?: string, readonly theirs?: string }

/** In what mine and theirs differ; two that would read alike are only named. */
export function differencesOf(change: Change, units: UnitPreferences): Difference[] {
  const words: Readonly<Record<string, string>> = change.target.what === 'plan' ? PLAN_FIELDS : ITEM_FIELDS,
    a = change.body as Readonly<Record<string, unknown>> | undefined,
    b = otherOf(change) as Readonly<Record<string, unknown>> | undefined
  if (!a || !b) return []
  return Object.keys(words).filter(k => canonicalJson(a[k] ?? null) !== canonicalJson(b[k] ?? null)).map((k) => {
    const field = words[k]!, say = SAID[k as keyof typeof SAID]
    if (!say) return { field }
    const [mine, theirs] = [a[k], b[k]].map(v => v == null ? 'not said' : say(v as never, units))
    return mine === theirs ? { field } : { field, mine, theirs }
  })
}

/** Which of two versions stands. */
export type Choice = 'mine' | 'theirs' | 'both'

/** What is said of a thing in two versions, and what each way out of it is called; some are no way out. */
interface ChoiceWords {
  readonly met: string
  readonly mine: string
  readonly theirs: string
  readonly ways: Readonly<Partial<Record<Choice, string>>>
}
/** The later of two versions of one browser is as little or as much somebody's own as the earlier. */
export function choiceWords(change: Change): ChoiceWords {
  const here = change.conflict?.here !== undefined,
    columns = here ? { mine: 'The later', theirs: 'The earlier' } : { mine: 'Yours', theirs: 'The other' }
  if (putsAway(change))
    return {
      ...columns,
      met: here
        ? 'This was changed in one tab of this browser and put away in another.'
        : 'You put this away, and it was changed on another device meanwhile.',
      ways: { mine: 'Put it away', theirs: 'Keep it as it was changed' },
    }
  if (otherOf(change) === undefined)
    return {
      ...columns,
      met: here
        ? 'This was put away in one tab of this browser and changed in another.'
        : 'This was put away on another device meanwhile.',
      ways: { both: 'Keep it as a new one', theirs: 'Leave it put away' },
    }
  return {
    ...columns,
    met: here
      ? 'This was changed in two tabs of this browser at once.'
      : 'This was changed on another device meanwhile.',
    ways: { both: 'Keep both', mine: here ? 'Use the later' : 'Use mine', theirs: here ? 'Use the earlier' : 'Use the other' },
  }
}
