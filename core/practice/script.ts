import type { StirTool } from '../gypsum/stirring'
import type { Kilograms, Seconds } from '../units/quantity'
import { uniform } from './noise'
import { beginRun, bucketOf, perform, sinceWet, type Run } from './run'
import { feltFrom, senses } from './senses'
import type { Act, Setup, Strewn, Vigour } from './types'
import { clearestPlace, lookOf } from './wetting'

/**
 * Ways through a bucket: what an expert does, by senses and never by what is hidden, and the same with a slip. A way is
 * played against a run and becomes a log like a learner's.
 */
export interface Way {
  readonly scrub?: boolean
  readonly water: { readonly kg: Kilograms, readonly celsius: number }
  readonly strew: {
    /** None: until islands stay, with water as it is. */
    readonly kg?: Kilograms
    readonly handful: Kilograms
    readonly every: Seconds
    readonly how?: Strewn
    readonly sieved?: boolean
    /** Strewn on over islands and stirred under. */
    readonly over?: Kilograms
  }
  readonly soak: Seconds
  readonly stir: {
    readonly tool: StirTool
    readonly vigour?: Vigour
    readonly above?: boolean
    /** At most so long; until smooth unless it is by the clock. */
    readonly most: Seconds
    readonly byClock?: boolean
  }
  readonly tapBucket?: Seconds
  readonly dawdle?: Seconds
  /** Moulds in the order in which they are filled. */
  readonly order: readonly string[]
  readonly coat?: boolean
  readonly tilt?: boolean
  readonly high?: boolean
  readonly many?: boolean
  readonly tap: Seconds
  readonly table?: boolean
  readonly plug?: boolean
  /** Swilled so often, each coat once it films. */
  readonly swills?: number
  readonly swillFresh?: boolean
  /** A second bucket of the same, so long after the first is poured. */
  readonly second?: Seconds
  /** Opened when cool and so long after wetting; or at a fixed time. */
  readonly openAt?: Seconds
  readonly notBefore?: Seconds
  readonly paintAfter?: Seconds
}

/** How a hand is not even: shares by which what it does is longer or more, drawn for each. */
export interface Unevenness { readonly seed: number }
const UNEVEN = { soak: 0.20, stir: 0.15, pace: 0.25, tap: 0.30, dawdle: 12, water: 1.5 } as const
const LOOK: Seconds = 10, ISLANDS_FOR: Seconds = 15
/** Clear water over less of the surface than this is none. */
const SOME_CLEAR = 0.05, ISLANDS = 1 / 3

/** A handful somewhere on the water, by the hash of its number: over the whole surface. */
export function somewhere(seed: number, n: number): { readonly x: number, readonly y: number } {
  const r = 0.46 * Math.sqrt(uniform(seed, 'where', n)), a = 2 * Math.PI * uniform(seed, 'turn', n)
  return { x: 0.5 + r * Math.cos(a), y: 0.5 + r * Math.sin(a) }
}

/** Plays a way. @returns the run, with its log */
export function follow(setup: Setup, seed: number, way: Way, uneven?: Unevenness): Run {
  const run = beginRun(setup, seed), off = (name: keyof typeof UNEVEN) =>
    uneven ? UNEVEN[name] * (2 * uniform(uneven.seed, name) - 1) : 0
  const act = (a: Act, gap: Seconds = 2) => void perform(run, { gap, act: a })
  if (way.scrub) act({ do: 'scrub' })
  mixOne(run, way, act, off)
  const dawdle = (way.dawdle ?? 5) + (uneven ? UNEVEN.dawdle * uniform(uneven.seed, 'dawdle') : 0)
  if (way.tapBucket !== 0) act({ do: 'tap-bucket', seconds: way.tapBucket ?? 10 }, 2)
  fill(run, way, act, dawdle, 1 + off('tap'))
  if (way.second !== undefined) {
    act({ do: 'next-bucket' }, way.second)
    mixOne(run, way, act, off)
    fill(run, way, act, 5, 1)
  }
  for (const m of setup.moulds) open(run, way, m.id)
  return run
}

type Does = (a: Act, gap?: Seconds) => void
type Off = (name: keyof typeof UNEVEN) => number

function mixOne(run: Run, way: Way, act: Does, off: Off): void {
  const { kg, celsius } = way.water, { strew } = way
  act({ do: 'water', kg, celsius: celsius + off('water') })
  const every = strew.every * (1 + off('pace')), how = strew.how ?? 'hand'
  const where = (n: number) => how !== 'hand'
    ? { x: 0.5, y: 0.5 }
    : strew.kg === undefined ? clearestPlace(bucketOf(run)) : somewhere(run.seed, n)
  const put = (n: number, gap: Seconds, portion: Kilograms) =>
    act({ do: 'strew', ...where(n), kg: portion, how, ...strew.sieved && { sieved: true } }, gap)
  if (strew.kg === undefined) strewToIslands(run, way, put, every)
  else {
    const n = Math.max(1, Math.round(strew.kg / strew.handful))
    for (let i = 0; i < n; i++) put(i, i === 0 ? 3 : every, strew.kg / n)
  }
  if (strew.over) for (let i = 0, n = Math.ceil(strew.over / 0.05); i < n; i++) put(500 + i, 3, strew.over / n)
  stirIt(run, way, act, way.soak * (1 + off('soak')), 1 + off('stir'))
}

/** A handful only where there is clear water again; over once islands hold over a third for a quarter of a minute. */
type Put = (n: number, gap: Seconds, kg: Kilograms) => void
function strewToIslands(run: Run, way: Way, put: Put, every: Seconds): void {
  const { handful } = way.strew, most = 4 * way.water.kg / run.place.powder.ratio.recommended / handful
  const look = () => lookOf(run.place, bucketOf(run)), waits = () => perform(run, { gap: 3, act: { do: 'lift', kg: 0 } })
  for (let n = 0; n < most; n++) {
    put(n, n === 0 ? 3 : every, handful)
    for (let held = 0; look().clear < SOME_CLEAR || look().stays > ISLANDS; held += 3) {
      if (held >= ISLANDS_FOR) return
      waits()
    }
  }
}

/** In looks of ten seconds until no lump is felt and it coats; once it films it is poured whatever it is. */
function stirIt(run: Run, { stir }: Way, act: Does, soak: Seconds, longer: number): void {
  const { tool, vigour = 1, above, most, byClock } = stir
  const one = { do: 'stir', tool, vigour, ...above && { above }, seconds: LOOK } as const
  if (byClock) return act({ ...one, seconds: Math.round(2 * most * longer) / 2 }, soak)
  for (let t = 0; t < most * longer; t += LOOK) {
    act(one, t === 0 ? soak : 0)
    const { flow, lumps } = senses(run)
    if (flow === 'films' || flow === 'stiff' || flow === 'matt') return
    if (lumps === 'none' && t >= 2 * LOOK) return
  }
}

function fill(run: Run, way: Way, act: Does, dawdle: Seconds, longer: number): void {
  let gap = dawdle
  if (way.swills !== undefined) return swillIt(run, way, act, gap)
  for (const mould of way.order) {
    const how = { ...way.high && { high: true }, ...way.many && { many: true } }
    if (way.coat) {
      act({ do: 'coat', mould }, gap)
      gap = 2
    }
    if (way.tilt) {
      act({ do: 'pour', mould, to: 0.25, ...how }, gap)
      act({ do: 'tilt', mould })
      act({ do: 'tap', mould, seconds: 10 })
      gap = 2
    }
    act({ do: 'pour', mould, to: 1, ...how }, gap)
    gap = 2
    if (way.plug) {
      act({ do: 'plug', mould })
      act({ do: 'pour', mould, to: 1 })
    }
  }
  for (const mould of way.order)
    if (way.tap > 0) act({ do: 'tap', mould, seconds: Math.round(2 * way.tap * longer) / 2, ...way.table && { table: true } })
}

/** Each coat once the one in the bucket films, which is felt. */
function swillIt(run: Run, way: Way, act: Does, dawdle: Seconds): void {
  const [mould] = way.order
  for (let n = 0, gap = dawdle; n < way.swills!; n++) {
    if (!way.swillFresh) {
      for (let t = 0; t < 3600 && !['films', 'stiff', 'matt'].includes(senses(run).flow ?? ''); t += 5)
        perform(run, { gap: 5, act: { do: 'lift', kg: 0 } })
    }
    act({ do: 'swill', mould: mould! }, gap)
    gap = 15
  }
}

/** Opened by the hand's sense of cool, and never before custom; or at a time of its own. */
function open(run: Run, way: Way, mould: string): void {
  const piece = run.pieces.find(p => p.mould.id === mould)
  if (!piece) return
  const { cool } = feltFrom(run, piece), custom = Math.max(way.notBefore ?? 0, piece.mould.notBefore ?? 0)
  const at = way.openAt ?? Math.max(sinceWet(run), custom, Math.min(cool, 12 * 3600))
  perform(run, { gap: at, act: { do: 'open', mould } })
  if (way.paintAfter !== undefined) perform(run, { gap: at + way.paintAfter, act: { do: 'paint', mould } })
}
