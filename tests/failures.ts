import { USUAL_WEATHER } from '../core/drying/places'
import type { DefectId } from '../core/pour/defects'
import type { Happening, PourEvent } from '../core/pour/events'
import type { MouldFacts, Plan } from '../core/plan/types'
import { freezeRun, type FrozenRun } from '../core/plan/run'
import { foldPour } from '../core/pour/fold'
import type { PourState } from '../core/pour/fold'

/**
 * Made-up failed pours whose true cause is known. What went wrong is done to the pour (more water, a longer stir, a
 * mould opened too soon …), never looked up in the rules;
 * beside it lie the small faults of every pour, and large ones that had nothing to do with it.
 */

/** A source of chance that repeats itself. */
export function dice(seed: number) {
  let s = seed % 2_147_483_647 || 1
  const next = () => {
    s = (s * 48_271) % 2_147_483_647
    return s / 2_147_483_647
  }
  return {
    next,
    between: (a: number, b: number) => a + (b - a) * next(),
    one: <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)]!,
  }
}
type Dice = ReturnType<typeof dice>

/** What is done differently from the plan. */
interface Doing {
  ratio: number
  stir: number
  soak: number
  /** Minutes before the mix is too stiff at which the cast was filled. */
  spare: number
  /** Times the earliest safe moment at which it was opened. */
  opening: number
  room: number
  water: number
  batchShare: number
  leftover: 'overflow' | 'bin' | 'none'
  troubles: ('leak' | 'short' | 'water-on-top')[]
  lumps: boolean
  place?: { place: 'sky' | 'board' | 'cabinet' | 'rack', celsius: number }
  /** Days on the shelf before it was finished. */
  shelf: number
  glossLate: number
}
interface World { bag: 'sound' | 'old', mould: Partial<MouldFacts>, school: Plan['school'] }

/** Small faults that every pour has. */
function ordinary(d: Dice): Doing {
  return {
    ratio: 1 + d.between(-0.025, 0.025),
    stir: d.between(0.85, 1.25),
    soak: d.between(0.85, 1.3),
    spare: d.between(1.5, 6),
    opening: d.between(1.15, 2.2),
    room: d.between(17, 22),
    water: d.between(16, 22),
    batchShare: d.between(0.985, 1.02),
    leftover: d.one(['overflow', 'bin', 'overflow', 'none'] as const),
    troubles: [],
    lumps: d.next() < 0.08,
    shelf: d.between(9, 14),
    glossLate: d.between(0.7, 0.95),
  }
}
const usual = (d: Dice): World => ({
  bag: d.next() < 0.12 ? 'old' : 'sound',
  school: 'weighed',
  mould: { material: 'silicone', halves: d.next() < 0.3 ? 2 : 1, fragile: d.next() < 0.25 },
})

/**
 * Each true cause: what it does, to what world, and the defects it then shows. Causes carry the names that the answer
 * uses.
 */
const CULPRITS: Record<
  string,
  { readonly shows: readonly DefectId[], readonly do: (x: Doing, w: World, d: Dice) => void }
> = {
  'too-thin': {
    shows: ['soft', 'soft', 'crack'],
    do: (x, _, d) => {
      x.ratio = d.between(1.05, 1.22)
      if (d.next() < 0.4) x.troubles.push('water-on-top')
    },
  },
  'too-thick': {
    shows: ['surface-bubbles', 'void'],
    do: (x, _, d) => {
      x.ratio = d.between(0.82, 0.95)
    },
  },
  'stirred-long': {
    shows: ['surface-bubbles', 'layer-line'],
    do: (x, _, d) => {
      x.stir = d.between(1.4, 2.6)
    },
  },
  'stirred-little': {
    shows: ['lumps', 'streaks'],
    do: (x, _, d) => {
      x.stir = d.between(0.3, 0.65)
      x.lumps = d.next() < 0.6
    },
  },
  'soak-short': {
    shows: ['lumps'],
    do: (x, _, d) => {
      x.soak = d.between(0.1, 0.6)
      x.lumps = d.next() < 0.4
    },
  },
  'poured-late': {
    shows: ['layer-line', 'void', 'short'],
    do: (x, _, d) => {
      x.spare = d.between(-4, 0)
    },
  },
  'opened-early': {
    shows: ['broken-edge', 'torn', 'warped'],
    do: (x, _, d) => {
      x.opening = d.between(0.55, 0.98)
    },
  },
  'cold': {
    shows: ['soft'],
    do: (x, _, d) => {
      x.room = d.between(4, 9)
      x.water = d.between(5, 9)
    },
  },
  'hot-water': {
    shows: ['lumps'],
    do: (x, _, d) => {
      x.water = d.between(34, 45)
    },
  },
  'old-powder': {
    shows: ['soft', 'lumps'],
    do: (x, w, d) => {
      w.bag = 'old'
      x.glossLate = d.between(1.2, 1.6)
    },
  },
  'release-missing': {
    shows: ['stuck', 'stuck', 'torn'],
    do: (_, w) => {
      w.mould = { ...w.mould, material: 'plaster', halves: 2 }
    },
  },
  'seam-open': {
    shows: ['flash'],
    do: (x, w, d) => {
      w.mould = { ...w.mould, halves: 2 }
      if (d.next() < 0.7) x.troubles.push('leak')
    },
  },
  'too-little': {
    shows: ['short'],
    do: (x, _, d) => {
      x.batchShare = d.between(0.8, 0.95)
      x.leftover = 'none'
      if (d.next() < 0.6) x.troubles.push('short')
    },
  },
  'dried-hot': {
    shows: ['crack', 'warped'],
    do: (x, _, d) => {
      x.place = d.next() < 0.6 ? { place: 'sky', celsius: 27 } : { place: 'cabinet', celsius: 48 }
    },
  },
  'dried-one-side': {
    shows: ['warped'],
    do: (x) => {
      x.place = { place: 'board', celsius: 20 }
    },
  },
  'finished-damp': {
    shows: ['efflorescence', 'stain'],
    do: (x, _, d) => {
      x.shelf = d.between(0.2, 1)
    },
  },
  'air-shut-in': {
    shows: ['void'],
    do: (_, w) => {
      w.mould = { ...w.mould, halves: 2, pourHole: 0.02 }
    },
  },
}
export const TRUE_CAUSES = Object.keys(CULPRITS)

const runs = new Map<string, FrozenRun>()
function runFor(w: World): FrozenRun {
  const key = JSON.stringify(w), known = runs.get(key)
  if (known) return known
  const mould: MouldFacts = {
    id: 'm',
    name: 'Bracket',
    material: 'silicone',
    volume: { value: 5e-4, low: 4.9e-4, high: 5.1e-4 },
    mouth: { shape: 'round', width: 0.1, length: 0.1 },
    wall: 0.01,
    section: 0.025,
    fragile: false,
    ...w.mould,
  }
  const plan: Plan = {
    name: 'p',
    endUse: 'painted',
    fills: [{ mould: 'm', count: 2 }],
    classId: 'casting-plaster',
    school: w.school,
    ratio: 0.67,
    scoop: { volume: 2.5e-4, filling: 'loose', perWater: 2 },
    waterTemperature: 19,
    roomTemperature: 20,
    bucket: 'b',
    losses: 0.06,
    soakMinutes: 2,
    stir: { tool: 'hand', minutes: 2 },
    additions: [],
    known: { what: 'moulds', amount: 0 },
  }
  const frozen = freezeRun(plan, {
    moulds: [mould],
    bucket: { id: 'b', name: 'Pail', vessel: { bottom: 0.2, top: 0.25, height: 0.25 } },
    bag: { id: 'g', name: 'The bag', classId: 'casting-plaster', uncertain: w.bag === 'old' },
  })
  if (!frozen.ok) throw new Error(frozen.problems[0]?.code)
  runs.set(key, frozen.run)
  return frozen.run
}

/** The record of a pour that went so. */
function record(run: FrozenRun, x: Doing, d: Dice): PourState {
  const T0 = 1_800_000_000_000,
    { mix, steps } = run.batches[0]!,
    { pourBy, openEarliest, glossGone, warmest } = run.moments.m!
  const events: PourEvent[] = []
  const say = (at: number, h: Happening) =>
    events.push(
      {
        ...h,
        id: `e${events.length}`,
        pour: 'p',
        batch: 0,
        version: 1,
        happenedAt: T0 + Math.round(at * 1000),
        recordedAt: T0,
        device: 'd',
        deviceSeq: events.length,
        actor: 'a',
      } as PourEvent,
    )
  const stage = (at: number, s: string) => say(at, { kind: 'stage', data: { stage: s as 'sift' } })
  // Nobody tells everything: what was not told cannot speak for or against.
  const told = (often: number) => d.next() < often
  stage(-400, 'ready')
  stage(-300, 'weigh')
  if (told(0.5)) say(-299, { kind: 'temperature', data: { celsius: x.room, where: 'room' } })
  if (told(0.5)) say(-298, { kind: 'temperature', data: { celsius: x.water, where: 'water' } })
  const part = Math.sqrt(x.ratio), weighed = told(0.75)
  if (weighed)
    say(-200, { kind: 'weighed', data: { what: 'water', mass: mix.water * x.batchShare * part, how: 'scale' } })
  if (weighed)
    say(-100, { kind: 'weighed', data: { what: 'powder', mass: mix.powder * x.batchShare / part, how: 'scale' } })
  const soak = steps.sifted.value,
    stir = soak + x.soak * 120,
    fill = stir + x.stir * 120,
    filled = Math.max(fill + 20, pourBy.value - 60 * x.spare)
  stage(0, 'sift')
  stage(soak, 'soak')
  if (told(0.85)) stage(stir, 'stir')
  if (x.lumps) say(stir + 10, { kind: 'mark', data: { sign: 'lumps' } })
  stage(fill, 'fill')
  if (told(0.7)) for (const cast of ['1.1', '1.2']) say(filled, { kind: 'filled', data: { cast } })
  for (const t of x.troubles) say(filled + 5, { kind: 'trouble', data: { trouble: t } })
  stage(filled + 20, 'clean-up')
  if (told(0.7)) say(filled + 60, { kind: 'leftover', data: { where: x.leftover } })
  stage(filled + 200, 'set')
  if (d.next() < 0.7)
    say(x.glossLate > 1 ? glossGone.high * x.glossLate : glossGone.value * x.glossLate, {
      kind: 'mark',
      data: { sign: 'gloss-gone' },
    })
  if (d.next() < 0.4) say(warmest.value * d.between(0.9, 1.1), { kind: 'mark', data: { sign: 'warmest' } })
  const opened = openEarliest.value * x.opening
  say(opened, { kind: 'opened', data: { cast: '1.1' } })
  const where = x.place ?? (d.next() < 0.5 ? { place: 'rack' as const, celsius: 20 } : undefined)
  if (where && told(0.8))
    say(opened + 600, {
      kind: 'placed',
      data: {
        cast: '1.1', place: where.place, air: { celsius: where.celsius, humidity: 0.5 },
        weather: { ...USUAL_WEATHER, sky: 'sun' },
      },
    })
  say(opened + x.shelf * 86_400, { kind: 'finished', data: { cast: '1.1' } })
  return foldPour(run, events)
}

export interface Failure {
  readonly run: FrozenRun
  readonly state: PourState
  readonly defect: DefectId
  readonly causes: readonly string[]
}

/** @returns a failed pour: its true cause, sometimes two, often beside a fault that did not matter. */
export function failure(seed: number): Failure {
  const d = dice(seed * 7919 + 13)
  for (let i = 0; i < 3; i++) d.next()
  const cause = TRUE_CAUSES[seed % TRUE_CAUSES.length]!, x = ordinary(d), w = usual(d)
  const causes = [cause], defect = d.one(CULPRITS[cause]!.shows)
  // Another cause of the same defect at work, in one of five; a large fault that cannot bring this one, in two of five.
  const chance = d.next(), others = TRUE_CAUSES.filter(c => c !== cause)
  const second = chance < 0.2
    ? others.filter(c => CULPRITS[c]!.shows.includes(defect))
    : chance < 0.6
      ? others.filter(c => !CULPRITS[c]!.shows.includes(defect))
      : []
  if (second.length > 0) {
    const other = d.one(second)
    CULPRITS[other]!.do(x, w, d)
    if (chance < 0.2) causes.push(other)
  }
  CULPRITS[cause]!.do(x, w, d)
  const run = runFor(w)
  return { run, state: record(run, x, d), defect, causes }
}
