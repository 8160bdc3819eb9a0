import type { PowderClassId } from '../gypsum/powders'
import type { LeverId } from './levers'
import type { Way } from './script'
import type { Hidden, PracticeMould, Setup } from './types'

/**
 * What there is to practise: each with what is there, what an expert does, the slip that it is about, and the one thing
 * by which that slip is put right. Jobs, amounts and customs: common practice, no source; all is made up.
 */

export type Level = 1 | 2 | 3
export interface Scenario {
  readonly id: ScenarioId
  readonly level: Level
  readonly setup: Setup
  readonly expert: Way
  readonly slip: Way
  readonly names: LeverId
}
const IDS = [
  'first-bowl', 'heap', 'kit-bag', 'thin-plate', 'whisk', 'high', 'warm-tap', 'dirty', 'leak', 'short', 'paint', 'no-soak',
  'over-stirred', 'islands', 'crust', 'hand', 'stone-table', 'latex', 'investment', 'two-buckets', 'old-bag', 'hot-day',
  'field-print', 'salt', 'row', 'dental', 'pottery-20', 'frost',
] as const
export type ScenarioId = typeof IDS[number]
export const SCENARIO_IDS: readonly ScenarioId[] = IDS

type Part = Partial<Omit<PracticeMould, 'volume'>> & { readonly litres: number }
/** Blocks are no thicker than this, m. */
const THICKEST = 0.04
/** A plain block in silicone unless said: its face that of a squat box. */
function mould({ litres, ...more }: Part): PracticeMould {
  const volume = litres / 1000
  return {
    id: 'a', count: 1, volume, face: 6 * volume ** (2 / 3), section: Math.min(THICKEST, 0.6 * Math.cbrt(volume)), height: Math.cbrt(volume),
    material: 'silicone', notBefore: 2 * 3600, ...more,
  }
}
interface Wanted {
  readonly powder: PowderClassId
  /** kg and degC; kg of powder, and how long it takes to strew them. */
  readonly water: number
  readonly celsius?: number
  readonly kg: number
  readonly sift?: number
  readonly soak?: number
  readonly stir?: number
  readonly moulds: readonly PracticeMould[]
  readonly room?: number
  readonly ground?: number
  readonly width?: number
  readonly holds?: number
  readonly hidden?: Hidden
  readonly way?: Partial<Way>
  readonly tool?: Way['stir']['tool']
  /** Where the plan's own clock is what leads astray. */
  readonly planned?: { readonly soak: number, readonly stir: number }
}
/** A bag that was used before scatters less than its class. */
const KNOWN_BAG = 0.15
/** Plans say this of stirring; an expert goes by the mix, and longer where it must be. */
const PLANNED = 110
/** What there is to practise with, and an expert's way through it. */
export interface Bowl { readonly setup: Setup, readonly expert: Way }
function bowl({ moulds, room = 20, width = 0.226, holds = 8, soak = 120, stir = 200, sift = 70, ...of }: Wanted): Bowl {
  const celsius = of.celsius ?? 20, n = Math.max(8, Math.min(40, Math.round(of.kg / 0.05)))
  return {
    setup: {
      powder: of.powder, vessel: { width, holds: holds / 1000 }, room, moulds,
      plan: {
        powder: of.kg, ratio: of.water / of.kg, water: celsius, soak, stir: Math.min(stir, PLANNED), ...of.planned,
      },
      ...of.ground !== undefined && { ground: of.ground }, hidden: { rateSd: KNOWN_BAG, ...of.hidden },
    },
    expert: {
      water: { kg: of.water, celsius }, strew: { kg: of.kg, handful: of.kg / n, every: sift / n }, soak,
      stir: { tool: of.tool ?? 'hand', most: stir }, order: moulds.map(m => m.id), tap: 60, ...of.way,
    },
  }
}

type Made = Omit<Scenario, 'id'>
function made(level: Level, names: LeverId, { setup, expert }: Bowl, slip: (expert: Way) => Partial<Way>): Made {
  return { level, names, setup, expert, slip: { ...expert, ...slip(expert) } }
}

const litre = (more: Partial<Wanted> = {}) => bowl({
  powder: 'plaster-of-paris', water: 0.692, celsius: 16, kg: 0.99, moulds: [mould({ litres: 1 })], ...more,
})
const wide = { width: 0.30, holds: 15 } as const
const kneaded = { tool: 'kneaded-bag', soak: 15, sift: 4 } as const

const ALL: Readonly<Record<ScenarioId, Made>> = {
  'first-bowl': made(1, 'stir-more', bowl({
    powder: 'plaster-of-paris', water: 0.554, celsius: 18, kg: 0.79, moulds: [mould({ litres: 0.8 })],
  }), e => ({ stir: { ...e.stir, most: 15, byClock: true } })),
  'heap': made(1, 'spread', bowl({
    powder: 'pottery-plaster', water: 1.04, celsius: 18, kg: 1.48, sift: 83, moulds: [mould({ litres: 1.5 })],
  }), e => ({
    strew: { ...e.strew, handful: 0.4, every: 4, how: 'heap' }, stir: { ...e.stir, most: 80, byClock: true },
  })),
  'kit-bag': made(1, 'stir-more', bowl({
    powder: 'plaster-of-paris', water: 0.173, kg: 0.247, width: 0.16, holds: 1, stir: 280, ...kneaded,
    moulds: [mould({ litres: 0.25, section: 0.012, height: 0.012, notBefore: 1.5 * 3600 })],
    way: { strew: { kg: 0.247, handful: 0.247, every: 1, how: 'whole' }, tapBucket: 0 },
  }), e => ({ stir: { ...e.stir, most: 30, byClock: true } })),
  'thin-plate': made(1, 'open', bowl({
    powder: 'plaster-of-paris', water: 0.341, celsius: 18, kg: 0.49, sift: 46,
    moulds: [mould({ litres: 0.48, section: 0.008, height: 0.008, face: 0.06, fragile: true, notBefore: 2 * 3600 })],
  }), () => ({ openAt: 12 * 60 })),
  'whisk': made(1, 'tool', bowl({
    powder: 'plaster-of-paris', water: 0.554, celsius: 18, kg: 0.79, moulds: [mould({ litres: 0.8 })],
  }), e => ({ stir: { ...e.stir, tool: 'whisk', vigour: 3, above: true, most: 120, byClock: true } })),
  'high': made(1, 'height', bowl({
    powder: 'gypsum-cement', water: 0.515, celsius: 18, kg: 1.23, sift: 78, soak: 90, moulds: [mould({ litres: 0.88 })],
  }), () => ({ high: true, many: true })),
  'warm-tap': made(1, 'water', bowl({
    powder: 'pottery-plaster', water: 1.04, celsius: 18, kg: 1.48, sift: 83, moulds: [mould({ litres: 1.5 })],
  }), e => ({ water: { ...e.water, celsius: 58 }, stir: { ...e.stir, most: 80, byClock: true } })),
  'dirty': made(1, 'scrub', bowl({
    powder: 'pottery-plaster', water: 1.04, celsius: 18, kg: 1.48, sift: 83, moulds: [mould({ litres: 1.5 })],
    hidden: { dirt: 0.05 }, way: { scrub: true },
  }), () => ({ scrub: false })),
  'leak': made(1, 'plug', bowl({
    powder: 'gypsum-cement', water: 0.63, celsius: 18, kg: 1.5, sift: 82, soak: 90,
    moulds: [mould({ litres: 1, leak: 4e-6 })], way: { plug: true },
  }), () => ({ plug: false })),
  'short': made(1, 'amount', bowl({
    powder: 'gypsum-cement', water: 1.14, celsius: 18, kg: 2.72, sift: 128, soak: 90, ...wide,
    moulds: [mould({ litres: 2 })],
  }), e => ({ water: { ...e.water, kg: 0.84 }, strew: { ...e.strew, kg: 2.0 } })),
  'paint': made(1, 'paint', bowl({
    powder: 'plaster-of-paris', water: 0.415, celsius: 18, kg: 0.59, sift: 48,
    moulds: [mould({ litres: 0.6, section: 0.025 })], way: { paintAfter: 12 * 86_400 },
  }), () => ({ paintAfter: 3600 })),
  'no-soak': made(1, 'soak', bowl({
    powder: 'casting-plaster', water: 0.817, celsius: 18, kg: 1.22, sift: 80, soak: 150, moulds: [mould({ litres: 1.2 })],
  }), e => ({
    soak: 4, strew: { ...e.strew, every: e.strew.every / 4 }, stir: { ...e.stir, most: 70, byClock: true },
  })),
  'over-stirred': made(1, 'stir-less', bowl({
    powder: 'plaster-of-paris', water: 1.73, celsius: 14, kg: 2.47, sift: 117, soak: 60, stir: 110, tool: 'drill', ...wide,
    moulds: [mould({ litres: 2.5, section: 0.03 })], way: { tap: 90 },
  }), e => ({ stir: { ...e.stir, most: 420, byClock: true } })),
  'islands': made(2, 'gauge', litre({
    celsius: 14, way: { strew: { handful: 0.022, every: 3 } },
  }), () => ({ strew: { handful: 0.05, every: 5, kg: 0.63 } })),
  'crust': made(2, 'gauge', litre({
    celsius: 14, way: { strew: { handful: 0.022, every: 3 } },
  }), () => ({ strew: { handful: 0.05, every: 5, kg: 1.0, over: 0.3 } })),
  'hand': made(2, 'tilt', bowl({
    powder: 'casting-plaster', water: 0.613, celsius: 14, kg: 0.92, sift: 73, soak: 90,
    moulds: [mould({ litres: 0.9, material: 'soft-impression', detail: { hook: { share: 0.35 } } })], way: { tilt: true },
  }), () => ({ tilt: false })),
  'stone-table': made(2, 'tap', bowl({
    powder: 'high-strength-gypsum-cement', water: 0.197, celsius: 12, kg: 0.63, sift: 51, soak: 40, width: 0.16,
    moulds: [mould({ litres: 0.39 })], way: { coat: true, table: true },
  }), () => ({ coat: false, tap: 0 })),
  'latex': made(2, 'swill', bowl({
    powder: 'plaster-of-paris', water: 0.698, kg: 1, sift: 73,
    moulds: [mould({ litres: 0.9, face: 0.07, section: 0.009, wall: 0.009, material: 'latex', height: 0.15 })],
    way: { swills: 4, tap: 0 },
  }), () => ({ swills: 2, swillFresh: true })),
  'investment': made(2, 'soak', bowl({
    powder: 'investment-plaster', water: 1.82, celsius: 12, kg: 3.64, sift: 4, soak: 180, stir: 140, ...wide,
    moulds: [mould({ litres: 3, material: 'clay' })],
    way: { strew: { kg: 3.64, handful: 3.64, every: 2, how: 'whole' } },
  }), e => ({ soak: 4, stir: { ...e.stir, most: 60, byClock: true } })),
  'two-buckets': made(2, 'second', bowl({
    powder: 'plaster-of-paris', water: 2.72, celsius: 4, kg: 3.88, sift: 90, soak: 40, stir: 120, ...wide,
    moulds: [mould({ litres: 8, section: 0.05, height: 0.05 })], way: { second: 10 },
  }), () => ({ second: 25 * 60 })),
  'old-bag': made(2, 'sieve', litre({
    hidden: { caking: 22, rate: 0.75, rateSd: 0.3 },
    way: { strew: { kg: 0.99, handful: 0.05, every: 3.6, sieved: true } },
  }), e => ({ strew: { ...e.strew, sieved: false } })),
  'hot-day': made(2, 'water', bowl({
    powder: 'plaster-of-paris', water: 6, celsius: 6, kg: 8.57, sift: 170, soak: 45, stir: 110, room: 34, tool: 'drill', width: 0.40,
    holds: 30, moulds: [mould({ litres: 9, section: 0.06, height: 0.06 })], way: { coat: true },
  }), e => ({ water: { ...e.water, celsius: 52 }, stir: { ...e.stir, most: 70, byClock: true } })),
  'field-print': made(2, 'open', bowl({
    powder: 'high-strength-gypsum-cement', water: 0.442, celsius: 15, kg: 1.43, room: 8, ground: 5, stir: 330, ...kneaded,
    moulds: [mould({ litres: 0.85, material: 'ground', section: 0.02, height: 0.02, notBefore: 8 * 3600 })],
    way: { strew: { kg: 1.43, handful: 1.43, every: 1, how: 'whole' }, coat: true, tap: 0, tapBucket: 0 },
  }), () => ({ openAt: 18 * 60 })),
  'salt': made(3, 'watch', bowl({
    powder: 'casting-plaster', water: 0.817, celsius: 12, kg: 1.22, sift: 70, soak: 40, stir: 110, planned: { soak: 180, stir: 180 },
    moulds: [mould({ litres: 1.2, detail: { thin: { gap: 0.002, length: 0.02, share: 0.25 } } })],
    hidden: { additions: [{ id: 'salt', share: 0.02 }], rate: 1.7, rateSd: 0.1 },
  }), e => ({ soak: 180, stir: { ...e.stir, most: 180, byClock: true } })),
  'row': made(3, 'order', bowl({
    powder: 'plaster-of-paris', water: 1.245, celsius: 18, kg: 1.783, sift: 75, soak: 65, stir: 90, width: 0.28, holds: 14,
    // The fourth bucket of a morning from one bag: by now it is known.
    hidden: { rateSd: 0.05 },
    moulds: [
      mould({
        id: 'fine', count: 6, litres: 0.058, detail: { thin: { gap: 0.0007, length: 0.025, share: 0.4 } }, notBefore: 4000,
      }),
      mould({ id: 'plain', count: 24, litres: 0.058, notBefore: 4000 }),
    ],
    way: { tap: 10 },
  }), e => ({
    order: ['plain', 'fine'], dawdle: 30, stir: { ...e.stir, byClock: true },
  })),
  'dental': made(3, 'late', bowl({
    powder: 'dental-type-3', water: 0.067, kg: 0.22, sift: 26, soak: 20, stir: 84, tool: 'spatula', width: 0.11, holds: 0.6,
    moulds: [mould({
      litres: 0.12, material: 'tray-impression', detail: { thin: { gap: 0.002, length: 0.012, share: 0.4 } },
      notBefore: 40 * 60,
    })],
    way: { coat: true, table: true, tap: 45 },
  }), () => ({ dawdle: 420 })),
  'pottery-20': made(3, 'spread', bowl({
    powder: 'pottery-plaster', water: 13.33, celsius: 4, kg: 19.04, sift: 280, soak: 60, stir: 128, tool: 'drill', width: 0.45,
    holds: 40, moulds: [mould({ litres: 20, section: 0.03 })], hidden: { rateSd: 0.1 }, way: { tap: 120 },
  }), e => ({
    strew: { ...e.strew, handful: 2.5, every: 12, how: 'heap' }, stir: { ...e.stir, most: 80, byClock: true },
  })),
  'frost': made(3, 'water', bowl({
    powder: 'high-strength-gypsum-cement', water: 0.442, celsius: 45, kg: 1.43, room: -6, ground: -3, stir: 330, ...kneaded,
    moulds: [mould({ litres: 0.85, material: 'ground', section: 0.02, height: 0.02, notBefore: 3 * 3600 })],
    way: { strew: { kg: 1.43, handful: 1.43, every: 1, how: 'whole' }, coat: true, tap: 0, tapBucket: 0 },
  }), e => ({ water: { ...e.water, celsius: 2 } })),
}

export const SCENARIOS: readonly Scenario[] = IDS.map(id => ({ id, ...ALL[id] }))
export const scenario = (id: ScenarioId): Scenario => ({ id, ...ALL[id] })
