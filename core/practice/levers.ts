import { play, wait, type Run } from './run'
import { somewhere } from './script'
import { CRUMBLY, senses } from './senses'
import type { Act, Entry, Log, Setup } from './types'

/**
 * One thing done right and the rest as it was: each lever is a change of a learner's log. One whose thing was right
 * gives nothing. They read what the learner could see, was told, or planned: never what is hidden.
 */
export const LEVER_IDS = [
  'scrub', 'water', 'gauge', 'amount', 'sieve', 'spread', 'soak', 'tool', 'stir-more', 'stir-less', 'watch', 'late',
  'second', 'order', 'height', 'tilt', 'coat', 'tap', 'plug', 'swill', 'open', 'paint',
] as const
export type LeverId = typeof LEVER_IDS[number]
type Lever = (log: Log, setup: Setup, run: Run) => Log | undefined

type Does<D extends Act['do']> = Extract<Act, { readonly do: D }>
const is = <D extends Act['do']>(d: D) => (e: Entry): e is Entry & { readonly act: Does<D> } => e.act.do === d
const lastOf = <T>(list: readonly T[], right: (of: T) => boolean): number =>
  list.reduce((found, of, i) => right(of) ? i : found, -1)
const first = <D extends Act['do']>(log: Log, d: D) => log.findIndex(is(d))
const entries = <D extends Act['do']>(log: Log, d: D) => log.filter(is(d))
const insert = (log: Log, at: number, ...more: readonly Entry[]): Log =>
  [...log.slice(0, at), ...more, ...log.slice(at)]
const changeActs = <D extends Act['do']>(log: Log, d: D, change: (act: Does<D>) => Act): Log =>
  log.map(e => is(d)(e) ? { ...e, act: change(e.act) } : e)

/** How far from a plan something may be and still is right: shares, K, s. */
const GAUGE_OFF = 0.06, AMOUNT_OFF = 0.08, WATER_OFF = 4, SOAK_OFF = 0.7, SOAK_LONG = 1.6, DAWDLED = 45
const SECOND_WITHIN = 120, TAPPED = 6, HANDFUL = 0.25, LONG_STIR = 1.6
const HANDFULS = 20

const waterOf = (log: Log) => entries(log, 'water').reduce((n, e) => n + e.act.kg, 0)
const strewnOf = (log: Log) => entries(log, 'strew').reduce((n, e) => n + e.act.kg, 0)
const stirredFor = (log: Log) => entries(log, 'stir').reduce((n, e) => n + e.act.seconds, 0)

/** Sets how long the whole stirring takes, keeping tool and vigour of its first stroke. */
function stirFor(log: Log, seconds: number): Log {
  const at = first(log, 'stir'), stroke = log[at]
  if (!stroke || !is('stir')(stroke)) return log
  const rest = log.filter((e, i) => i === at || !is('stir')(e))
  return rest.map((e, i) => i === at && is('stir')(e) ? { ...e, act: { ...e.act, seconds } } : e)
}
/** Strewn as it should be: handfuls over the whole surface, at the pace the plan has for it. */
function spreadOut(log: Log, kg: number): Log {
  const at = first(log, 'strew'), n = Math.max(8, Math.min(40, Math.round(kg / 0.05)))
  const sieved = entries(log, 'strew').every(e => e.act.sieved)
  const even = Array.from({ length: n }, (_, i): Entry => ({
    gap: i === 0 ? 3 : 70 / n * Math.max(1, kg / 1.2) ** 0.6,
    act: { do: 'strew', ...somewhere(1, i), kg: kg / n, how: 'hand', ...sieved && { sieved: true } },
  }))
  return insert(log.filter(e => !is('strew')(e) && !is('lift')(e)), at, ...even)
}
/** Alpha stone in a bag and investment are dumped, as is right there. */
const dumped = (log: Log): boolean => entries(log, 'strew').every(e => e.act.how === 'whole')

export const LEVERS: Readonly<Record<LeverId, Lever>> = {
  'scrub': (log, setup) => {
    const crusted = (setup.hidden?.dirt ?? 0) > 0 // it is seen in the picture
    return crusted && first(log, 'scrub') < 0 ? insert(log, 0, { gap: 0, act: { do: 'scrub' } }) : undefined
  },
  'water': (log, { plan }) => entries(log, 'water').some(e => Math.abs(e.act.celsius - plan.water) > WATER_OFF)
    ? changeActs(log, 'water', a => ({ ...a, celsius: plan.water }))
    : undefined,
  'gauge': (log, { plan }) => {
    const right = waterOf(log) / plan.ratio, strewn = strewnOf(log) - entries(log, 'lift').reduce((n, e) => n + e.act.kg, 0)
    if (Math.abs(strewn / right - 1) < GAUGE_OFF) return undefined
    return dumped(log) ? changeActs(log, 'strew', a => ({ ...a, kg: a.kg * right / strewn })) : spreadOut(log, right)
  },
  'amount': (log, { plan }) => {
    const share = waterOf(log) / (plan.powder * plan.ratio * (first(log, 'next-bucket') < 0 ? 1 : 2))
    if (share > 1 - AMOUNT_OFF) return undefined
    return log.map(e => is('water')(e) || is('strew')(e) ? { ...e, act: { ...e.act, kg: e.act.kg / share } } : e)
  },
  'sieve': (log, _, { place }) => {
    const crumbly = place.truth.caking > CRUMBLY // which is felt
    if (!crumbly || entries(log, 'strew').every(e => e.act.sieved)) return undefined
    return changeActs(log, 'strew', a => ({ ...a, sieved: true }))
  },
  'spread': (log) => {
    const strews = entries(log, 'strew'), kg = strewnOf(log)
    const most = Math.max(...strews.map(e => e.act.kg)) / kg
    return !dumped(log) && (most > HANDFUL || strews.some(e => e.act.how === 'heap') || strews.length < HANDFULS / 3)
      ? spreadOut(log, kg)
      : undefined
  },
  'soak': (log, { plan }) => {
    const at = first(log, 'stir'), gap = log[at]?.gap ?? plan.soak
    if (at < 0 || (gap > SOAK_OFF * plan.soak && gap < SOAK_LONG * plan.soak + 20)) return undefined
    return log.map((e, i) => i === at ? { ...e, gap: plan.soak } : e)
  },
  'tool': (log) => {
    const wild = (a: Does<'stir'>) => a.tool === 'whisk' || a.above || a.vigour === 3
    return entries(log, 'stir').some(e => wild(e.act))
      ? changeActs(log, 'stir', a => ({ do: 'stir', seconds: a.seconds, vigour: 1, tool: a.tool === 'whisk' ? 'hand' : a.tool }))
      : undefined
  },
  // Who stopped because it filmed was right to.
  'stir-more': (log, { plan }, run) => {
    if (stirredFor(log) >= 0.6 * plan.stir) return undefined
    const { flow } = senses(play(run.place.setup, run.seed, log.slice(0, lastOf(log, is('stir')) + 1), run.place.truth))
    return flow === 'films' || flow === 'stiff' || flow === 'matt' ? undefined : stirFor(log, 0.9 * plan.stir)
  },
  'stir-less': (log, { plan }) => stirredFor(log) > LONG_STIR * Math.min(plan.stir, 150)
    ? stirFor(log, Math.min(120, 0.6 * plan.stir))
    : undefined,
  // Soak and stirring both by the mix: stopped as soon as it coats.
  'watch': (log, { plan }) => {
    const at = first(log, 'stir')
    if (at < 0 || (log[at]!.gap < 60 && stirredFor(log) < 0.8 * plan.stir)) return undefined
    if (log[at]!.gap + stirredFor(log) < 240 || stirredFor(log) > LONG_STIR * 1.5 * plan.stir) return undefined
    return stirFor(log.map((e, i) => i === at ? { ...e, gap: 45 } : e), 100)
  },
  'late': (log) => {
    const at = log.findIndex(e => ['pour', 'coat', 'swill'].includes(e.act.do)), before = lastOf(log.slice(0, at), is('stir'))
    const long = log.flatMap((e, i) => i > before && i <= at && e.gap > DAWDLED && e.act.do !== 'swill' ? [i] : [])
    return at > 0 && long.length > 0 ? log.map((e, i) => long.includes(i) ? { ...e, gap: 5 } : e) : undefined
  },
  'second': log => entries(log, 'next-bucket').some(e => e.gap > SECOND_WITHIN)
    ? log.map(e => is('next-bucket')(e) ? { ...e, gap: 10 } : e)
    : undefined,
  'order': (log, { moulds }) => {
    const fine = new Set(moulds.filter(m => m.detail?.thin).map(m => m.id)), pours = log.filter(is('pour'))
    const isFine = (e: typeof pours[number]) => fine.has(e.act.mould)
    const lastFine = lastOf(pours, isFine), firstPlain = pours.findIndex(e => !isFine(e))
    if (fine.size === 0 || firstPlain < 0 || lastFine < firstPlain) return undefined
    const sorted = [...pours.filter(isFine), ...pours.filter(e => !isFine(e))]
    let n = 0
    return log.map(e => is('pour')(e) ? { gap: e.gap, act: sorted[n++]!.act } : e)
  },
  'height': log => entries(log, 'pour').some(e => e.act.high || e.act.many)
    ? changeActs(log, 'pour', a => ({ do: 'pour', mould: a.mould, to: a.to }))
    : undefined,
  'tilt': (log, { moulds }) => {
    const hooked = moulds.find(m => m.detail?.hook && !entries(log, 'tilt').some(e => e.act.mould === m.id))
    const at = hooked ? log.findIndex(e => is('pour')(e) && e.act.mould === hooked.id) : -1
    if (!hooked || at < 0) return undefined
    const { id: name } = hooked
    return insert(log, at, { ...log[at]!, act: { do: 'pour', mould: name, to: 0.25 } },
      { gap: 2, act: { do: 'tilt', mould: name } }, { gap: 2, act: { do: 'tap', mould: name, seconds: 10 } })
  },
  'coat': (log, { moulds }) => {
    const bare = moulds.filter(m => m.wall === undefined && !entries(log, 'coat').some(e => e.act.mould === m.id))
    // Nobody brushes a whole row while it sets.
    return bare.length === 0 || bare.reduce((n, m) => n + m.count, 0) > BRUSHED
      ? undefined
      : log.flatMap((e): Entry[] => is('pour')(e) && bare.some(m => m.id === e.act.mould)
        && e === log.find(o => is('pour')(o) && o.act.mould === e.act.mould)
          ? [{ gap: e.gap, act: { do: 'coat', mould: e.act.mould } }, { ...e, gap: 2 }]
          : [e])
  },
  'tap': (log, { moulds }) => {
    const untapped = moulds.filter(m => m.wall === undefined && m.material !== 'ground'
      && entries(log, 'tap').filter(e => e.act.mould === m.id).reduce((n, e) => n + e.act.seconds, 0) < TAPPED)
    const at = lastOf(log, is('pour')), table = untapped.some(m => m.volume < 5e-4)
    return untapped.length === 0 || at < 0
      ? undefined
      : insert(log, at + 1, ...untapped.map((m): Entry =>
          ({ gap: 2, act: { do: 'tap', mould: m.id, seconds: 60, ...table && { table } } })))
  },
  'plug': (log, _, { pieces }) => {
    const leaks = pieces.find(p => p.mould.leak && !entries(log, 'plug').some(e => e.act.mould === p.mould.id))
    const at = leaks ? log.findIndex(e => is('pour')(e) && e.act.mould === leaks.mould.id) : -1
    return at < 0
      ? undefined
      : insert(log, at + 1, { gap: 2, act: { do: 'plug', mould: leaks!.mould.id } },
          { gap: 2, act: { do: 'pour', mould: leaks!.mould.id, to: 1 } })
  },
  // Once it films, which is felt: found by playing up to there.
  'swill': (log, { moulds }, run) => {
    const at = first(log, 'swill'), mould = moulds.find(m => m.wall !== undefined)
    if (at < 0 || !mould) return undefined
    const waits = untilItFilms(run, log.slice(0, at))
    if (log[at]!.gap > 0.8 * waits && entries(log, 'swill').length >= COATS) return undefined
    const coats = Array.from({ length: COATS }, (_, n): Entry =>
      ({ gap: n === 0 ? waits : 15, act: { do: 'swill', mould: mould.id } }))
    return insert(log.filter(e => !is('swill')(e)), at, ...coats)
  },
  'open': (log, { moulds }, run) => log.some(e => is('open')(e) && openedEarly(e, moulds, run))
    ? log.map(e => is('open')(e) ? { ...e, gap: Math.max(e.gap, custom(moulds, e.act.mould)) } : e)
    : undefined,
  'paint': (log) => {
    const opened = Math.max(0, ...entries(log, 'open').map(e => e.gap))
    return entries(log, 'paint').some(e => e.gap - opened < 8 * 86_400)
      ? log.map(e => is('paint')(e) ? { ...e, gap: opened + 12 * 86_400 } : e)
      : undefined
  },
}

/** So many moulds are brushed at most before the mix stiffens. */
const BRUSHED = 6
/** Coats that make a usual wall. */
const COATS = 4
function untilItFilms({ place, seed }: Run, log: Log): number {
  const run = play(place.setup, seed, log, place.truth)
  let waited = 0
  for (; waited < 3600 && !['films', 'stiff', 'matt'].includes(senses(run).flow ?? ''); waited += 5) wait(run, 5)
  return waited
}

/** By the signs: before it can be cool, and before what is custom for it. */
const custom = (moulds: Setup['moulds'], id: string): number => moulds.find(m => m.id === id)?.notBefore ?? 3600
function openedEarly(e: Entry & { readonly act: Does<'open'> }, moulds: Setup['moulds'], _: Run): boolean {
  return e.gap < 0.9 * custom(moulds, e.act.mould)
}
/** A remedy that helps whatever went wrong counts for less. */
export const HELPS_ANYWAY: Readonly<Partial<Record<LeverId, number>>> = { coat: 0.35 }
