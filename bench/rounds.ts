import { CHAINS } from '../core/job/chains'
import { workOutJob } from '../core/job/windows'
import type { Standing } from '../core/schedule/board'
import { boundRound } from '../core/schedule/bounds'
import type { Round, RoundShape } from '../core/schedule/round'
import { planByRule } from '../core/schedule/rules'
import { searchPlans } from '../core/schedule/search'
import { findBreaches } from '../core/schedule/verify'
import type { RoundPlan } from '../core/schedule/timetable'
import { workOutWindows } from '../core/schedule/windows'

/**
 * How good rounds are and how soon: three of 200 pieces, one of 1,000 pieces of 30 shapes, plan beside bound in working
 * minutes, so that nights do not flatter. `tsx --tsconfig tsconfig.tools.json bench/rounds.ts`, SECONDS=10 for more.
 */
const SECONDS = Number(process.env.SECONDS ?? 3)
const days = (n: number) => Array.from({ length: n }, (_, d) => [d * 1440 + 540, d * 1440 + 1020] as const)
const MIX = { weigh: 3, sift: 3, soak: 2, soakMax: 5, stir: 3, clean: 4, pourBy: 20 }
const shape = (id: string, part: Partial<RoundShape>): RoundShape =>
  ({ id, pieces: 40, copies: 3, volume: 1, fill: 1, set: 45, open: 3, shelf: 1, ...part })
const round = (part: Partial<Round>): Round => ({
  horizon: 20 * 1440, persons: [days(20)], buckets: 2, bucketVolume: 8, tables: 1, shapes: [], setFrom: 'wet', goal: 'soonest',
  mixing: () => MIX, ...part,
})
const ROUNDS: Readonly<Record<string, Round>> = {
  '200 of one shape, 12 moulds, one person': round({ shapes: [shape('a', { pieces: 200, copies: 12, volume: 1.2 })] }),
  '200 of four shapes, 20 moulds, two people': round({
    persons: [days(20), days(20)],
    shapes: [0, 1, 2, 3].map(i => shape(`s${i}`, { pieces: 50, copies: 5, volume: 1 + 0.2 * i, set: 40 + 5 * i })),
  }),
  '200 of five shapes, 12 moulds, one person': round({
    shapes: [0, 1, 2, 3, 4].map(i => shape(`s${i}`, { copies: 2 + i % 2, volume: 1 + 0.3 * i, set: 40 + 5 * i })),
  }),
  '1000 of thirty shapes, two people': round({
    horizon: 30 * 1440, persons: [days(30), days(30)], buckets: 3, bucketVolume: 10,
    shapes: Array.from({ length: 30 }, (_, i) =>
      shape(`s${i}`, { pieces: 33 + i % 3, copies: 2 + i % 3, volume: 0.6 + 0.1 * (i % 7), set: 40 + 2 * i, open: 2 })),
  }),
}
const worked = (t: number) => Math.floor(t / 1440) * 480 + Math.min(480, Math.max(0, t % 1440 - 540))
/** The first bucket of a plan is in its moulds and one piece broke: how soon the rest stands in a plan again. */
function repair(r: Round, { list, table }: RoundPlan): string {
  const [first] = table.mixings
  if (!first) return ''
  const standing: Standing = {
    from: first.filled, persons: [], buckets: [first.cleaned],
    moulds: first.moulds.map(({ shape, copy, set }) => ({ shape, copy, set: set + 10 })),
  }
  const began = performance.now(), { table: mended } = searchPlans(r, 1, { standing, before: list }).next().value
  return `; mended in ${(performance.now() - began).toFixed(0)} ms, ${worked(mended.end)} min`
}

for (const [name, r] of Object.entries(ROUNDS)) {
  const began = performance.now(), first = planByRule(r).table, took = performance.now() - began
  let best = planByRule(r), tries = 0
  const since = performance.now()
  for (const plan of searchPlans(r, 1)) {
    best = plan
    tries++
    if (performance.now() - since > 1000 * SECONDS) break
  }
  const bound = boundRound(r), gap = worked(best.table.end) / worked(bound.end) - 1
  console.log(
    `${name}: first plan ${took.toFixed(0)} ms, ${worked(first.end)} min of work; after ${SECONDS} s (${tries} tries) `
    + `${worked(best.table.end)}; no plan under ${worked(bound.end)} (${bound.by}): at most ${(100 * gap).toFixed(1)} % from the best`
    + `${findBreaches(r, best.table).join()}${best.table.missing > 0 ? `, ${best.table.missing} MISSING` : ''}`
    + repair(r, best),
  )
}
for (const { id, steps } of CHAINS.filter(c => ['impression', 'shell', 'class-kits'].includes(c.id))) {
  const now = Date.now(), times = Array.from({ length: 50 }, () => {
    const began = performance.now()
    workOutJob(steps, new Map(), now)
    return performance.now() - began
  }).sort((a, b) => a - b)
  console.log(`windows of the job ${id}, ${steps.length} steps: ${times[25]!.toFixed(2)} ms, worst ${times[49]!.toFixed(2)}`)
}
for (const steps of [20, 500, 5000]) {
  const bounds = Array.from({ length: steps - 1 }, (_, i) => ({ from: i, to: i + 1, min: 5 + i % 7, max: 60 }))
  const began = performance.now()
  workOutWindows({ nodes: steps, bounds, hours: new Map([[2, { shifts: days(400), length: 30 }]]) })
  console.log(`windows of ${steps} steps: ${(performance.now() - began).toFixed(2)} ms`)
}
