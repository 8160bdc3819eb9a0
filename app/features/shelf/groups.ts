import { dryingAdvice } from '~core/pour/drying'
import { NOT_HERE_WORDS } from '~core/drying/words'
import { DRYING_ADVICE_WORDS } from '~core/pour/words'
import { wordedIn } from '~core/units/sentences'
import { METRIC, type UnitPreferences } from '~core/units/units'
import type { CastNeed, CastSummary } from '~core/pour/projection'
import type { CastRow } from '~contract/pour'
import { roughDay, roughRange, timeOfDay, windowOf, dayAndTime } from '~/ui/when'

/** Casts of one pour and mould that are in the same state and need the same: handled as one. */
export interface CastGroup {
  /**
   * Its pour and first cast: the same row while what it needs changes, so that a key pressed meanwhile is not lost with
   * it.
   */
  readonly key: string
  readonly pour: string
  readonly pourName: string
  readonly need: CastNeed
  readonly label: string
  readonly first: CastSummary
  readonly casts: readonly CastSummary[]
}

export const rowKey = (pour: string, first: CastSummary) => `${pour}|${first.id}`
const numberOf = (label: string) => Number(/ (\d+)$/.exec(label)?.[1] ?? 0)

/** `Bell-pull 4–9`, `Lantern base 1, 2 and 5`, or the one name. */
export function groupLabel(casts: readonly CastSummary[]): string {
  const [first] = casts
  if (!first) return ''
  if (casts.length === 1) return first.label
  const numbers = casts.map(c => numberOf(c.label)).sort((a, b) => a - b)
  const unbroken = numbers.every((n, i) => i === 0 || n === numbers[i - 1]! + 1)
  return `${first.mould} ${
    unbroken ? `${numbers[0]}–${numbers.at(-1)}` : `${numbers.slice(0, -1).join(', ')} and ${numbers.at(-1)}`
  }`
}

/** Casts that dry in the same place and air go together; one that was weighed has a date of its own. */
function dryingKey({ id, drying }: CastSummary): readonly (string | number)[] {
  return drying
    ? [JSON.stringify(drying.standing), drying.weighed > 0 ? id : '']
    : []
}

export function groupCasts(rows: readonly (CastRow & { readonly need: CastNeed })[]): CastGroup[] {
  const groups = new Map<string, (CastRow & { need: CastNeed })[]>()
  for (const row of rows) {
    const key = [row.pour, row.cast.mould, row.need, row.cast.openFrom, row.cast.verdict, ...dryingKey(row.cast)].join(
      '|',
    )
    groups.set(key, [...groups.get(key) ?? [], row])
  }
  return [...groups.values()].map((members) => {
    const casts = members.map(m => m.cast).sort((a, b) => numberOf(a.label) - numberOf(b.label)),
      [first] = casts,
      { pour, pourName, need } = members[0]!
    return { key: rowKey(pour, first!), pour, pourName, need, label: groupLabel(casts), first: first!, casts }
  })
}

const RANK: Record<CastNeed, number> = {
  'open-late': 0,
  'open-now': 1,
  'judge': 2,
  'ready-now': 3,
  'setting': 4,
  'drying': 5,
  'kept-damp': 6,
  'none': 7,
}

/** Where no date can be given: after all that have one. */
const FAR = Number.MAX_SAFE_INTEGER

/** What needs a hand next comes first. */
export function byNeed(a: CastGroup, b: CastGroup): number {
  const moment = (g: CastGroup) => g.need === 'drying' ? g.first.readyFrom ?? FAR : g.first.openFrom ?? 0
  return RANK[a.need] - RANK[b.need] || moment(a) - moment(b)
}

/** What is worth doing with a drying cast before it is ready, if anything. */
export function adviceFor(group: CastGroup, now: number, prefs: UnitPreferences = METRIC): string | undefined {
  if (!group.first.drying || (group.need !== 'drying' && group.need !== 'kept-damp')) return undefined
  const advice = dryingAdvice(group.first.drying, now, group.need === 'kept-damp')
  if (advice === 'not-drying') return NOT_HERE_WORDS[group.first.drying.notHere!.code]
  return advice && wordedIn(DRYING_ADVICE_WORDS[advice], prefs)
}

/** Dates further off than this are told as the air not drying it. */
const NEVER_MS = 120 * 86_400_000

/** What the group needs, in words: what, and when. */
export function needWords(group: CastGroup, now: number): { readonly what: string, readonly when: string } {
  const c = group.first
  switch (group.need) {
    case 'open-late':
      return { what: 'Open now', when: `since ${dayAndTime(c.openFrom!, now)}, late` }
    case 'open-now':
      return { what: 'Open now', when: `best until ${timeOfDay(c.openTo!)}` }
    case 'judge':
      return { what: 'Inspect', when: `opened ${dayAndTime(c.openedAt!, now)}` }
    case 'ready-now':
      return { what: c.readyWord.replace(/^./, x => x.toUpperCase()), when: `since ${roughDay(c.readyTo!, now)}` }
    case 'setting':
      return { what: windowOf(c.openFrom!, c.openTo!, now), when: 'open' }
    case 'drying':
      if (c.drying?.notHere) return { what: 'Not here', when: c.readyWord }
      if (c.readyFrom! - now > NEVER_MS) return { what: 'Not in this air', when: c.readyWord }
      return {
        what: (c.readyTo! - now > NEVER_MS
          ? `from ${roughRange(c.readyFrom!, c.readyFrom!, now)}`
          : roughRange(Math.max(now, c.readyFrom!), c.readyTo!, now)).replace(/^./, x =>
          x.toUpperCase()),
        when: c.readyWord,
      }
    case 'kept-damp':
      return { what: 'Kept damp', when: 're-wet it; watch for mildew' }
    case 'none':
      return { what: '', when: '' }
  }
}
