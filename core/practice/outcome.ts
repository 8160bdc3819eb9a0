import { solveMix } from '../gypsum/mix'
import { BREATHES } from '../gypsum/end-use'
import { expectedDrying, usualStanding } from '../drying/expected'
import { MOULD_MATERIALS } from '../setting/body'
import { growingStrength, openingStrengths } from '../setting/hardening'
import type { Sample } from '../setting/conduction'
import { coarseFor, runSetting, type SettingMoments } from '../setting/hydration'
import { settingMix } from '../setting/setting-mix'
import type { Seconds } from '../units/quantity'
import { lumpsSeen, smallestLeft, type Piece } from './casts'
import type { Run } from './run'
import { STREAKY } from './stirring'

/** What became of a run: each piece as somebody would judge it, worked out and never scripted. */
export interface PieceOutcome {
  /** Shares: not filled, of the detail that stayed empty; strength against the plan's. */
  readonly missing: number
  readonly voids: number
  readonly strength: number
  /** A square decimetre of face. */
  readonly lumps: number
  readonly bubbles: number
  /** Water to powder as it really was. */
  readonly ratio: number
  /** Wall of what was swilled, against the one wanted. */
  readonly wall: number
  readonly broken: boolean
  readonly frozen: boolean
  readonly layer: boolean
  readonly streaks: boolean
  readonly damp: boolean
  /** Points lost of one, at the faults that are told: 0 is a good piece. */
  readonly loss: number
}
export interface Outcome {
  readonly pieces: readonly PieceOutcome[]
  /** Mixed and not used, of what was strewn; and how long beyond a day it stood before it was opened, min. */
  readonly leftover: number
  readonly over: number
  readonly loss: number
  readonly spoilt: number
  readonly verdict: 'good' | 'second' | 'waste'
}

/** Bubbles under a hand's air, a square decimetre (2 to 15); their sizes, m and logarithm; seen from. */
const BUBBLES = 7.5, USUAL_AIR = 0.02, MEDIAN = 0.0006, SPREAD = 0.7, SEEN_FROM = 0.0003
const HIGH = 2.5, MANY = 1.4, COAT = 0.4
/** Opening needs less than the forecast's cautious strength. */
const NEEDED = 0.75
/** Frost before it has set leaves so little of its strength. */
const FREEZES = -0.5, FROZEN_LEFT = 0.3
/** Painted sooner than this share of its drying it blooms. */
const BLOOMS = 0.85
const RYSHKEWITCH = 4.445

/** Share of the standard normal below z (Abramowitz and Stegun 26.2.17, from memory: within 1e-7). */
function below(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z)), poly = t * (0.319381530 + t * (-0.356563782 + t * (1.781477937
    + t * (-1.821255978 + t * 1.330274429))))
  const tail = Math.exp(-z * z / 2) / Math.sqrt(2 * Math.PI) * poly
  return z > 0 ? 1 - tail : tail
}
/** Of the bubbles that can be seen, those up to this size. */
export function shareSeen(upTo: number): number {
  const at = (d: number) => below(Math.log(d / MEDIAN) / SPREAD)
  return Math.max(0, at(Math.max(SEEN_FROM, upTo)) - at(SEEN_FROM)) / (1 - at(SEEN_FROM))
}

export function bubblesOf(piece: Piece, handAir: number, density: number): number {
  return BUBBLES * piece.air / handAir * Math.sqrt(handAir / USUAL_AIR) * shareSeen(smallestLeft(piece, density))
    * (piece.high ? HIGH : 1) * (piece.many ? MANY : 1) * (piece.coated ? COAT : 1)
}

/** How a cast hardened: its moments after its own powder met water, and samples on the way. */
interface Hardened {
  readonly moments: SettingMoments
  readonly samples: readonly Sample[]
  readonly strength: number
}
const TWELVE_HOURS = 12 * 3600
function harden(run: Run, piece: Piece): Hardened {
  const samples: Sample[] = [], { input, setting } = piece.mix!
  const { scatter } = run.place.truth, resolution = coarseFor(piece.mould.section)
  const { moments } = runSetting(input, scatter, resolution, 0, s => samples.push(s))
  // At its own air, and as it was stirred.
  const { handAir } = run.place.plaster, pores = setting.solid.porosity
  const airy = 1 - (1 - pores) * (1 - piece.air) / (1 - handAir)
  return { moments, samples, strength: setting.strength * Math.exp(-RYSHKEWITCH * (airy - pores)) * piece.spoilt }
}

/** When a hand would find it cool again and strong by custom: when nobody opened it, it is opened then. */
export function opensItself(piece: Piece, { moments }: Hardened): Seconds {
  const wetAt = piece.mix!.wetAt, coolAt = Math.min(moments.coolAgain, TWELVE_HOURS)
  return wetAt + Math.max(coolAt, piece.mould.notBefore ?? 0, 1.3 * Math.min(TWELVE_HOURS, moments.thinStrong))
}

/** What a plan's own mix would be worth, MPa: its ratio, its air. */
function plannedStrength({ place: { setup, powder } }: Run): number {
  return settingMix({
    powder, ratio: setup.plan.ratio, waterTemperature: setup.plan.water, roomTemperature: setup.room,
    stir: { tool: 'hand', minutes: setup.plan.stir / 60 }, section: 0.03, mould: 'plastic',
  }).strength
}

/** How strong it is at a moment, MPa. */
function strengthAt({ samples, strength }: Hardened, { setting }: NonNullable<Piece['mix']>, t: Seconds): number {
  const now = [...samples].reverse().find(s => s.t <= t) ?? samples[0]!
  return growingStrength(strength, (now.slowest - setting.alphaSet) / (setting.alphaMax - setting.alphaSet))
}

function isLayered(run: Run, piece: Piece, glossGone: Seconds): boolean {
  const [first, ...later] = piece.pours
  if (!first) return false
  const wetAt = run.buckets[first.bucket]?.wetAt ?? 0
  return later.some(p => p.at - wetAt > glossGone) || piece.pours.some(p => p.stiff)
}

const NOTHING: Omit<PieceOutcome, 'loss'> = {
  missing: 1, voids: 0, strength: 0, lumps: 0, bubbles: 0, ratio: 0, wall: 0,
  broken: false, frozen: false, layer: false, streaks: false, damp: false,
}
function pieceOutcome(run: Run, piece: Piece, planned: number): Omit<PieceOutcome, 'loss'> {
  const { mould, mix } = piece
  if (!mix || (piece.filled <= 0 && piece.wall <= 0)) return NOTHING
  const { truth, powder, setup } = run.place, hard = harden(run, piece), { moments } = hard
  const frozen = hard.samples.some(s => s.t < moments.finalSet && s.meanTemperature < FREEZES)
  const opened = piece.openedAt ?? opensItself(piece, hard), opens = openingStrengths(hard.strength)
  const asks = mould.fragile ? opens.thin : MOULD_MATERIALS[mould.material].flexible ? opens.flexible : opens.rigid
  const left = frozen ? FROZEN_LEFT : 1
  const holds = left * strengthAt(hard, mix, opened - mix.wetAt), needed = NEEDED * truth.holding * asks
  const { thin, hook } = mould.detail ?? {}
  const amounts = solveMix({ powder, ratio: mix.input.ratio, waterTemperature: 20 }, { what: 'slurry', amount: mould.volume })
  const dries = () => truth.drying * expectedDrying(
    amounts, { volume: mould.volume, section: mould.section }, BREATHES, usualStanding(setup.room)).value
  return {
    missing: mould.wall === undefined ? 1 - piece.filled : 0,
    voids: (thin?.share ?? 0) * piece.thinLeft + (hook?.share ?? 0) * piece.hookLeft,
    strength: left * hard.strength / planned, lumps: lumpsSeen(piece) / 100,
    // A coat is so thin that they break by themselves.
    bubbles: mould.wall !== undefined ? 0 : bubblesOf(piece, powder.handAir, mix.setting.fresh.density),
    ratio: mix.input.ratio, wall: mould.wall === undefined ? 1 : piece.wall / mould.wall,
    broken: holds < needed, frozen,
    layer: isLayered(run, piece, moments.glossGone), streaks: piece.even < STREAKY,
    damp: piece.paintedAt !== undefined && piece.paintedAt - opened < BLOOMS * dries(),
  }
}

/** From where a fault is told, and over how much of it a whole point is lost (engineering guesses). */
const over = (x: number, from: number, step: number) => Math.max(0, Math.min(2, (x - from) / step))
function lossOf(p: Omit<PieceOutcome, 'loss'>): number {
  const lumps = p.lumps > 3 ? Math.min(2, 1.2 * Math.log(1 + (p.lumps - 3) / 6)) : 0
  return lumps + over(p.bubbles, 5, 5) + over(p.voids, 0.05, 0.15) + over(p.missing, 0.02, 0.06)
    + over(0.80 - p.strength, 0, 0.15) + (p.wall < 1 ? over(0.85 - p.wall, 0, 0.2) : 0)
    + 2 * Number(p.broken) + 2 * Number(p.layer) + 2 * Number(p.damp) + 3 * Number(p.frozen) + Number(p.streaks)
}

const SPOILT = 0.25, MOST_SPOILT = 0.1, WASTE = 1.5
const LEFT_FREE = 0.3, LEFT_COSTS = 0.2, OVER_COSTS = 0.002, OVER_MOST = 0.2

function verdictOf(mean: number, spoilt: number): Outcome['verdict'] {
  if (mean < SPOILT && spoilt <= MOST_SPOILT) return 'good'
  return mean < WASTE ? 'second' : 'waste'
}

/** @returns what became of it all; a run that was left off is judged as if its moulds were opened in their time */
export function outcomeOf(run: Run): Outcome {
  const planned = plannedStrength(run), known = new Map<string, PieceOutcome>()
  const pieces = run.pieces.map((piece) => {
    const { mix, mould, pours } = piece
    const key = JSON.stringify({ ...piece, mould: mould.id, mix: mix?.input, pours: pours.map(p => p.bucket) })
    const found = known.get(key)
    if (found) return found
    const bare = pieceOutcome(run, piece, planned), made = { ...bare, loss: lossOf(bare) }
    known.set(key, made)
    return made
  })
  const sum = (of: (b: Run['buckets'][number]) => number) => run.buckets.reduce((n, b) => n + of(b), 0)
  const strewn = sum(b => b.strewn), used = sum(b => b.poured.powder)
  const leftover = strewn > 0 ? Math.max(0, 1 - used / strewn) : 0
  const spoilt = pieces.filter(p => p.loss > SPOILT).length / Math.max(1, pieces.length)
  const late = Math.max(0, ...run.pieces.map(p => p.openedAt ?? 0).map(t => t / 60)) - 24 * 60
  const mean = pieces.reduce((n, p) => n + p.loss, 0) / Math.max(1, pieces.length)
  const loss = mean + 0.5 * spoilt + LEFT_COSTS * Math.max(0, leftover - LEFT_FREE)
    + Math.min(OVER_MOST, OVER_COSTS * Math.max(0, late))
  return {
    pieces, leftover, over: Math.max(0, late), loss, spoilt,
    verdict: verdictOf(mean, spoilt),
  }
}
