import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import type * as Bench from './bench/cues'
import type * as Rescue from './bench/rescue'
import type * as Tallies from './logbook/tallies'
import type * as Why from './logbook/why'
import type * as Readiness from './mould/readiness'
import type * as PlanRoom from './plan/plan'
import type * as Run from './plan/run'
import type * as Fold from './pour/fold'
import type * as Projection from './pour/projection'
import type { Happening, PourEvent } from './pour/events'
import type { Plan, PlanWorld } from './plan/types'

/** Every word of every room is exchanged, and nothing that is decided may notice. */

const ROOMS = [
  'units', 'door', 'schedule', 'job',
  'gypsum',
  'setting',
  'drying',
  'mould',
  'plan',
  'pour',
  'forecast',
  'bench',
  'logbook',
  'lab',
] as const
/** Every table of words, those that stand apart from their room's own too. */
const TABLES = [
  ...ROOMS.map(room => `${room}/words`),
  'plan/step-words', 'plan/cloth-words', 'bench/cue-words', 'gypsum/saying-words', 'lab/doing-words',
]

/** The same tables with other words: strings, and whatever sentences are made by functions. */
function renamed(value: unknown): unknown {
  if (typeof value === 'string') return value === '' ? '' : `Zz ${value.length}`
  if (typeof value === 'function') return () => 'Zz said'
  if (Array.isArray(value)) return value.map(renamed)
  if (value && typeof value === 'object' && !(value instanceof Set) && !(value instanceof Map))
    return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, renamed(v)]))
  return value
}

const plan: Plan = {
  name: 'Mine',
  endUse: 'dental',
  fills: [{ mould: 'm', count: 2 }],
  classId: 'plaster-of-paris',
  school: 'scoops',
  ratio: 0.75,
  scoop: { volume: 250e-6, filling: 'loose', perWater: 2 },
  waterTemperature: 45,
  roomTemperature: 8,
  bucket: 'b',
  losses: 0.06,
  soakMinutes: 2,
  stir: { tool: 'drill', minutes: 2 },
  additions: [{ id: 'citrate', share: 0.005 }],
  known: { what: 'moulds', amount: 0 },
}
const world: PlanWorld = {
  moulds: [{
    id: 'm', name: 'Mask', material: 'polyurethane', volume: { value: 4e-4, low: 3.9e-4, high: 4.1e-4 },
    mouth: { shape: 'round', width: 0.1, length: 0.1 }, wall: 0.01, section: 0.03, fragile: true, halves: 2,
  }],
  bucket: { id: 'b', name: 'Pail', vessel: { bottom: 0.2, top: 0.25, height: 0.24 } },
  bag: { id: 'g', name: 'Bag', classId: 'plaster-of-paris', uncertain: true },
}

/** What is decided of one pour from its plan to its logbook, without the words that are shown beside it. */
async function decisions() {
  const { workOutPlan } = await import('./plan/plan') as typeof PlanRoom
  const { freezeRun, stepsOf } = await import('./plan/run') as typeof Run
  const { foldPour } = await import('./pour/fold') as typeof Fold
  const { summariseCasts, summarisePour, needOf } = await import('./pour/projection') as typeof Projection
  const { factsOf } = await import('./logbook/tallies') as typeof Tallies
  const { why } = await import('./logbook/why') as typeof Why
  const { cuesOf, reachesFar } = await import('./bench/cues') as typeof Bench
  const { rescue } = await import('./bench/rescue') as typeof Rescue
  const { readinessOf } = await import('./mould/readiness') as typeof Readiness
  const { cautionsFor } = await import('./plan/cautions')
  const { gaugeProblem, GAUGE_WAYS } = await import('./mould/gauge/gauge')
  const { powderClass } = await import('./gypsum/powders')
  const { SAYINGS, yieldVerdict } = await import('./gypsum/sayings')
  const { usualMix } = await import('./lab/mix'), usual = usualMix('plaster-of-paris')
  const { labRemarks } = await import('./lab/remarks')
  const { leversMoved } = await import('./lab/changes')
  const { parseQuantity } = await import('./units/parse')
  const warm = { ...plan, waterTemperature: 20, roomTemperature: 20, endUse: 'painted', additions: [] } as const
  const frozen = freezeRun(warm, world)
  if (!frozen.ok) throw new Error(frozen.problems.map(p => p.code).join())
  const { run } = frozen, T0 = 1_800_000_000_000
  const told = ([at, what]: readonly [number, Happening], i: number): PourEvent => ({
    ...what,
    id: `e${i}`,
    pour: 'p',
    batch: 0,
    version: 1,
    happenedAt: T0 + at * 1000,
    recordedAt: T0,
    device: 'd',
    deviceSeq: i,
    actor: 'a',
  })
  const state = foldPour(run, ([
    [0, { kind: 'stage', data: { stage: 'sift' } }],
    [400, { kind: 'stage', data: { stage: 'clean-up' } }],
    [900, { kind: 'judged', data: { cast: '1.1', verdict: 'second', defects: ['soft', 'stuck'], note: 'as told' } }],
  ] as const).map(told))
  const summary = summarisePour(run, state), casts = summariseCasts(run, state)
  return JSON.parse(JSON.stringify({
    problems: workOutPlan(plan, world).problems,
    steps: stepsOf(run),
    status: [state.status, state.casts.map(c => c.status), casts.map(c => needOf(c, T0 + 4e6))],
    facts: factsOf(summary, casts),
    classId: summary.classId,
    why: ['soft', 'stuck'].map(d => why(run, state, '1.1', d as 'soft')),
    cues: cuesOf(run, state).map(c => [c, reachesFar(c)]),
    rescue: rescue('short', run, state, { now: T0 + 500_000, batch: 0 }),
    ready: readinessOf({ ...world.moulds[0]!, material: 'latex' }, warm),
    cautions: cautionsFor(plan, world),
    gauges: [gaugeProblem({ how: 'gravel', reading: 1e-3, step: 1e-5, grain: 0.02, gap: 0.03 }), GAUGE_WAYS],
    sayings: SAYINGS.map(s => [s.id, s.claims, yieldVerdict(s.id, powderClass('gypsum-cement'), 1e-3).fit]),
    lab: [
      labRemarks({ ...usual, ratio: 0.4 }),
      labRemarks({ ...usual, section: 0.3, additions: [{ id: 'citrate', share: 0.01 }] }),
      leversMoved(usual, { ...usual, ratio: 0.8, waterTemperature: 8 }),
    ],
    typed: ['2 lb 4', '5 furlongs', '1 kg'].map(text => parseQuantity(text, 'length')),
  })) as Record<string, unknown>
}

describe('with every word renamed', () => {
  let before: Record<string, unknown>, after: Record<string, unknown>
  beforeAll(async () => {
    before = await decisions()
    vi.resetModules()
    for (const table of TABLES)
      vi.doMock(`./${table}`, async original => renamed(await original<object>()) as object)
    after = await decisions()
  })
  afterAll(() => {
    for (const table of TABLES) vi.doUnmock(`./${table}`)
    vi.resetModules()
  })

  it('the words are others', async () => {
    const { SIGN_WORDS } = await import('./plan/step-words')
    expect(SIGN_WORDS.webbing.words).toMatch(/^Zz/)
    expect(JSON.stringify(before)).not.toContain('Zz')
  })

  it.each([
    'problems',
    'steps',
    'status',
    'facts',
    'classId',
    'why',
    'cues',
    'rescue',
    'ready',
    'cautions',
    'gauges',
    'sayings',
    'lab',
    'typed',
  ])(
    '%s is the same',
    (what) => {
      expect(after[what]).toEqual(before[what])
      expect(before[what]).toBeDefined()
    },
  )
})
