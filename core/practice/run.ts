import { contentsOf, emptyBucket, placeOf, TICK, type Bucket, type Place } from './bucket'
import {
  coatWall, emptyPiece, handing, leak, runIn, sampleOf, shake, streamNow, takeOut, type Piece,
} from './casts'
import { catchUp, flowOf, mixes, set, type Flow } from './setting'
import { stir, tapBucket } from './stirring'
import { drawTruth, type Truth } from './truth'
import type { Act, Entry, Log, Setup } from './types'
import { lift, stirUnder, strew, wet } from './wetting'
import type { SettingMix } from '../setting/setting-mix'
import type { Seconds } from '../units/quantity'

/** One learner's run: a log of acts turned into what became of bucket and moulds. Same log and seed, same run. */
export interface Run {
  readonly place: Place
  readonly seed: number
  /** Seconds since it began; the bucket in hand stands last. */
  now: Seconds
  readonly buckets: Bucket[]
  readonly pieces: Piece[]
  readonly log: Entry[]
  /** The most that the bucket in hand has held, m3; how much fell beside, and the acts that did nothing. */
  batch: number
  pours: number
  mixOf: (b: Bucket) => SettingMix
}

export function beginRun(setup: Setup, seed: number, truth: Truth = drawTruth(setup, seed)): Run {
  const place = placeOf(setup, truth)
  return {
    place, seed, now: 0, buckets: [emptyBucket(place)], log: [], batch: 0, pours: 0, mixOf: mixes(place),
    pieces: setup.moulds.flatMap(m => Array.from({ length: m.count }, () => emptyPiece(m))),
  }
}

export const bucketOf = (run: Run): Bucket => run.buckets.at(-1)!
/** The mix in hand; nothing before it is stirred. */
export const settingOf = (run: Run): SettingMix | undefined => {
  const b = bucketOf(run)
  return b.stirFrom !== undefined && b.watered > 0 ? run.mixOf(b) : undefined
}
export function flowNow(run: Run): Flow | undefined {
  const setting = settingOf(run)
  return setting && flowOf(bucketOf(run), setting)
}

/** Half a second of whatever goes on by itself. */
function tick(run: Run): void {
  const b = bucketOf(run)
  wet(run.place, b)
  if (settingOf(run)) set(run.place, b, run.mixOf)
  b.now += TICK
  run.now += TICK
  const flow = run.pieces.some(p => p.leaking && p.filled > 0) ? flowNow(run) : undefined
  if (flow) for (const p of run.pieces) leak(p, flow)
}
/** Time passes, half a second by half a second. Once the mix has long set nothing in the bucket is stepped any more. */
export function wait(run: Run, seconds: Seconds): void {
  const ticks = Math.round(seconds / TICK), b = bucketOf(run), mix = settingOf(run)
  const still = mix && b.alpha[0]! > 0.97 * mix.alphaMax
  if (still || (b.wetAt === undefined && ticks > 0)) {
    b.now += ticks * TICK
    run.now += ticks * TICK
    return
  }
  for (let i = 0; i < ticks; i++) {
    tick(run)
    if (i % 240 === 239 && mix && b.alpha[0]! > 0.97 * mix.alphaMax) return wait(run, (ticks - i - 1) * TICK)
  }
}
const during = (run: Run, seconds: Seconds, each: () => void) => {
  for (let t = 0; t < seconds; t += TICK) {
    each()
    tick(run)
  }
}

const of = (run: Run, mould: string) => run.pieces.filter(p => p.mould.id === mould)
type Doing = { readonly [D in Act['do']]: (run: Run, act: Extract<Act, { do: D }>) => void }
/** What plain things of the hand take, s. */
const TAKES = { 'scrub': 60, 'coat': 15, 'tilt': 8, 'swill': 20, 'plug': 6, 'next-bucket': 45 } as const

const ACTS: Doing = {
  'scrub': (run) => {
    bucketOf(run).dirt = 0
    wait(run, TAKES.scrub)
  },
  'next-bucket': (run) => {
    run.buckets.push({ ...emptyBucket(run.place), dirt: bucketOf(run).dirt })
    run.mixOf = mixes(run.place)
    run.batch = 0
    run.now += TAKES['next-bucket']
  },
  'water': (run, { kg, celsius }) => {
    const b = bucketOf(run)
    b.waterTemperature = (b.water * b.waterTemperature + kg * celsius) / (b.water + kg)
    b.water += kg
    b.watered += kg
    if (b.strewn > 0) b.wetAt ??= b.now
  },
  'strew': (run, act) => strew(run.place, bucketOf(run), act),
  'lift': (run, { kg }) => void lift(run.place, bucketOf(run), kg),
  'stir': (run, act) => {
    const b = bucketOf(run)
    if (b.wetAt === undefined) return
    if (b.stirFrom === undefined) {
      stirUnder(run.place, b)
      b.tool = act.tool
      catchUp(run.place, b, run.mixOf)
    }
    during(run, act.seconds, () => {
      stir(run.place, b, act, run.mixOf(b))
      run.batch = Math.max(run.batch, contentsOf(run.place, b))
    })
  },
  'tap-bucket': (run, { seconds }) => during(run, seconds, () => {
    const flow = flowNow(run)
    if (flow) tapBucket(run.place, bucketOf(run), Math.max(0, 1 - flow.tau / (4 * flow.pours)))
  }),
  'coat': (run, { mould }) => {
    for (const p of of(run, mould)) p.coated = (flowNow(run)?.share ?? 1) < 1
    wait(run, TAKES.coat)
  },
  'tilt': (run, { mould }) => {
    for (const p of of(run, mould)) if (p.filled < 0.5) p.tilted = true
    wait(run, TAKES.tilt)
  },
  'swill': (run, { mould }) => {
    const flow = flowNow(run), setting = settingOf(run)
    if (flow && setting && flow.share < 1) {
      for (const p of of(run, mould)) {
        const sample = sampleOf(run.place, bucketOf(run))
        const volume = takeOut(run.place, bucketOf(run), Math.min(p.mould.face * 0.008, coatWall(p, flow)))
        if (volume <= 0) continue
        runIn(run.place, bucketOf(run), setting, p, volume, {
          high: false, many: false, at: run.now, bucket: run.buckets.length - 1, seed: run.seed, counter: 0, sample,
        })
      }
    }
    wait(run, TAKES.swill)
  },
  'plug': (run, { mould }) => {
    for (const p of of(run, mould)) p.leaking = false
    wait(run, TAKES.plug)
  },
  'pour': pour,
  'tap': (run, { mould, seconds, table = false }) => during(run, seconds, () => {
    const flow = flowNow(run), setting = settingOf(run)
    if (flow && setting) for (const p of of(run, mould)) if (p.filled > 0) shake(p, flow, setting, table)
  }),
  'open': (run, { mould }) => {
    for (const p of of(run, mould)) p.openedAt ??= run.now
  },
  'paint': (run, { mould }) => {
    for (const p of of(run, mould)) p.paintedAt ??= run.now
  },
}

/** One mould after the other, until there is no more, or it runs no more. */
function pour(run: Run, { mould, to, high = false, many = false }: Extract<Act, { do: 'pour' }>): void {
  const b = bucketOf(run)
  for (const piece of of(run, mould)) {
    const setting = settingOf(run)
    if (!setting) return
    const sample = sampleOf(run.place, b)
    let need = (to - piece.filled) * piece.mould.volume, poured = 0
    for (let t = 0; need > 1e-9 && t < 3600; t += TICK) {
      const taken = takeOut(run.place, b, Math.min(need, TICK * streamNow(run.batch, flowOf(b, setting))))
      if (taken <= 0) break
      need -= taken
      poured += taken
      tick(run)
    }
    if (poured <= 0) continue
    runIn(run.place, b, setting, piece, poured, {
      sample, high, many, at: run.now, bucket: run.buckets.length - 1, seed: run.seed, counter: run.pours++,
    })
    wait(run, handing)
  }
}

const runs = (run: Run, act: Act): void => (ACTS[act.do] as (run: Run, act: Act) => void)(run, act)
const byClock = (act: Act): boolean => act.do === 'open' || act.do === 'paint'

/** One act, after its gap. The run is moved on in place; what was is in its log. */
export function perform(run: Run, entry: Entry): Run {
  const { act, gap } = entry
  wait(run, byClock(act) ? Math.max(0, gap - sinceWet(run)) : gap)
  run.log.push(entry)
  runs(run, act)
  return run
}
/**
 * An act of somebody who waited already while they watched. Strokes that follow each other are one stirring, so that
 * the log played again is the same run. @param waited since the act before, s
 */
export function actNow(run: Run, act: Act, waited: Seconds): Run {
  const last = run.log.at(-1)
  if (act.do === 'stir' && waited === 0 && last?.act.do === 'stir' && isSameStroke(last.act, act))
    run.log[run.log.length - 1] = { gap: last.gap, act: { ...act, seconds: last.act.seconds + act.seconds } }
  else run.log.push({ gap: byClock(act) ? sinceWet(run) : waited, act })
  runs(run, act)
  return run
}
type Stir = Extract<Act, { readonly do: 'stir' }>
const isSameStroke = (a: Stir, b: Stir) => a.tool === b.tool && a.vigour === b.vigour && a.above === b.above
/** Seconds since powder met water in the first bucket. */
export function sinceWet(run: Run): Seconds {
  const [first] = run.buckets
  return first?.wetAt === undefined ? 0 : run.now - first.wetAt
}

/** A whole log played. @param truth instead of what the seed draws */
export function play(setup: Setup, seed: number, log: Log, truth?: Truth): Run {
  const run = beginRun(setup, seed, truth)
  for (const entry of log) perform(run, entry)
  return run
}
