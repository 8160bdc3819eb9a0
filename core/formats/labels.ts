import { additionKind } from '../gypsum/additions'
import { powderClass } from '../gypsum/powders'
import { byWayIn } from '../gypsum/ways-in'
import { WAY_IN_WORDS } from '../gypsum/words'
import { formatConsistency, formatDuration, formatMass, formatVolume } from '../units/format'
import { capital, listed } from '../units/sentences'
import type { UnitPreferences } from '../units/units'
import type { Drawable } from '../drawing/profile'
import type { FrozenRun } from '../plan/run'
import { toWeigh } from '../plan/to-weigh'
import type { Batch, Plan } from '../plan/types'
import type { CastSummary, PourSummary } from '../pour/projection'

/** What a label says: a short code that opens its page, a name, and a few lines. */
export interface Label {
  readonly code: string
  readonly title: string
  readonly lines: readonly string[]
  /** The mould, drawn small. */
  readonly picture?: Drawable
}

/**
 * Short enough to be typed: eight signs of the id, and which cast. A code may be met twice in a very large workshop;
 * then both are offered.
 */
export const castCode = (pour: string, cast: string) => `${pour.slice(0, 8)}-${cast}`.toUpperCase()
export const bagCode = (bag: string) => `B-${bag.slice(0, 8)}`.toUpperCase()

export const planCode = (plan: string) => `P-${plan.slice(0, 8)}`.toUpperCase()

export type CodeMeans = { readonly what: 'cast', readonly pour: string, readonly cast: string } | {
  readonly what: 'bag'
  readonly id: string
} | { readonly what: 'plan', readonly id: string }
/** What a code names, as typed or scanned; undefined when it is none. */
export function readCode(typed: string): CodeMeans | undefined {
  const code = typed.trim().toLowerCase()
  const cast = /^([0-9a-f]{8})-(\d{1,3}\.\d{1,3})$/.exec(code), other = /^([bp])-([0-9a-f]{8})$/.exec(code)
  return cast
    ? { what: 'cast', pour: cast[1]!, cast: cast[2]! }
    : other
      ? { what: other[1] === 'b' ? 'bag' : 'plan', id: other[2]! }
      : undefined
}

/**
 * Labels for bags that are filled at home and wetted in the field: what is in each, how much water it wants, what to
 * do, and nothing that needs a signal.
 * @param plan id of the plan that the code opens
 */
export function fieldBagLabels(plan: string, run: FrozenRun, units: UnitPreferences): readonly Label[] {
  const { steps } = run.batches[0]!, of = run.batches.length
  return run.batches.map((b, i) => ({
    code: planCode(plan),
    picture: b.fills[0]?.mould,
    title: `${formatMass(b.mix.powder, units)} · add ${formatVolume(b.mix.waterVolume, units)} water`,
    lines: [
      `${powderClass(run.plan.classId).name}${of > 1 ? `, bag ${i + 1} of ${of}` : ''}`,
      b.fills.map(f => `${f.copies} × ${f.mould.name}`).join(', '),
      run.plan.school === 'bag'
        ? `Knead ${formatDuration(steps.stirred.value, 'minute')}, pour by ${
          formatDuration(run.moments[b.fills[0]!.mould.id]!.pourBy.low, 'minute')
        }`
        : `Soak ${run.plan.soakMinutes} min, stir ${run.plan.stir.minutes} min`,
      ...weighLines(run.plan, b, units),
      'Mask on. Keep dry. Filled:',
    ],
  }))
}

/** A kit of a class as its label needs it: the number is the seat’s, the code opens its first cast. */
interface LabelledKit { readonly number: number, readonly name: string, readonly colour: string, readonly pour: string }

/** A label for each kit of a class: whose it is, what goes in, and how it is poured. */
export function kitLabels(kits: readonly LabelledKit[], run: FrozenRun, units: UnitPreferences): readonly Label[] {
  const [batch] = run.batches, [first] = batch!.fills
  const [{ lines: told, title }] = fieldBagLabels('', { ...run, batches: [batch!] }, units) as readonly [Label]
  return kits.map(({ number, name, colour, pour }) => ({
    code: castCode(pour, '1.1'),
    title: [`${number}`, name, colour].filter(Boolean).join(' · '),
    lines: [title, ...told.filter(line => !line.startsWith('Mask on'))],
    ...first && { picture: first.mould },
  }))
}

/** What is weighed beside powder and water, by the way it goes in; what is in the bag already is told too. */
function weighLines(plan: Plan, { mix }: Batch, units: UnitPreferences): readonly string[] {
  const all = toWeigh(plan, mix), powder = all.find(w => w.what === 'powder')
  const split = powder?.what === 'powder' && powder.split
    ? [`In it: ${formatMass(powder.split.plaster, units)} plaster, ${formatMass(powder.split.filler, units)} silica flour`]
    : []
  return [...split, ...byWayIn(mix.additions, plan).map(({ way, items }) => {
    const named = listed(items.map(a => `${formatMass(a.mass, units)} ${additionKind(a.id).name.toLowerCase()}`))
    return way === 'powder' ? `In it: ${named}` : `${WAY_IN_WORDS[way].into}: ${named}`
  })]
}

/** Where and when a print was found, what is believed to have made it, and which way it pointed. */
export interface Found {
  readonly place: string
  readonly on: string
  readonly believed: string
  readonly faced?: string
}
const foundLines = ({ place, on, believed, faced }: Found): readonly string[] => [
  [place, on].filter(Boolean).join(', '),
  [believed && `Made by ${believed}`, faced && `pointing ${faced}`].filter(Boolean).join(', '),
]

/** What comes next for a cast, or what came of it. */
function nextOf(c: CastSummary, day: (at: number) => string): string {
  if (c.readyTo !== undefined && c.finishedAt === undefined) return `By ${day(c.readyTo)} ${c.readyWord}`
  if (c.openedAt === undefined && c.openTo !== undefined) return `Open by ${day(c.openTo)}`
  return c.verdict ? capital(c.verdict) : ''
}

const foundOf = (mould: { readonly impression?: Found } | undefined) =>
  mould?.impression ? foundLines(mould.impression) : []

/** @param day writes a moment as a day. @param mouldOf a mould by its id, as far as it is known here */
export function castLabels(
  pour: string,
  summary: PourSummary,
  casts: readonly CastSummary[],
  day: (at: number) => string,
  mouldOf: (id: string) => Drawable & { readonly impression?: Found } | undefined = () => undefined,
): readonly Label[] {
  return casts.filter(c => c.status !== 'waiting').map(c => ({
    code: castCode(pour, c.id), title: c.label, picture: mouldOf(c.mouldId),
    lines: [
      summary.name,
      `${c.powder} at ${formatConsistency(c.ratio)}`,
      c.filledAt === undefined ? '' : `Poured ${day(c.filledAt)}`,
      nextOf(c, day),
      ...foundOf(mouldOf(c.mouldId)),
    ].filter(l => l !== ''),
  }))
}
