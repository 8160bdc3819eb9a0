import { bagScore, CASES, score, STAGES, WORLDS } from '../tests/worlds'

/**
 * How far the ranges of opening can be believed: the worlds of tests/worlds.ts, tuned by the first table and reported
 * by the second; and bags that were poured before.
 * `npx tsx --tsconfig tsconfig.tools.json bench/worlds.ts [pours]`
 */
const POURS = Number(process.argv[2] ?? 100)
const HALVES = [{ name: 'tuned on', seed: 5001 }, { name: 'held out', seed: 90_001 }]

for (const half of HALVES) {
  console.log(`\n${half.name} (seed ${half.seed}, ${POURS} pours a world and case)`)
  console.log('held after 0, 1, 2, 3 marks, and together; width and interval score in minutes, means over marks and cases')
  const all: { held: number, width: number, interval: number }[] = []
  WORLDS.forEach((world, w) => {
    const scores = CASES.map(({ input }, c) => score(world, input, POURS, half.seed + 7 * w + c)).flat()
    const mean = (of: (s: typeof scores[number]) => number, list = scores) =>
      list.reduce((sum, s) => sum + of(s), 0) / list.length
    const after = (k: number) => scores.filter((_, i) => i % STAGES.length === k)
    const stages = STAGES.map((_, k) => Math.round(100 * mean(s => s.held, after(k))))
    const row = { held: mean(s => s.held), width: mean(s => s.width), interval: mean(s => s.interval) }
    all.push(row)
    console.log([
      world.name.padEnd(44), stages.join(' ').padEnd(14), (100 * row.held).toFixed(1),
      row.width.toFixed(1).padStart(6), row.interval.toFixed(2).padStart(7),
    ].join(' '))
  })
  const mean = (of: (s: typeof all[number]) => number) => all.reduce((sum, s) => sum + of(s), 0) / all.length
  console.log(`all: held ${(100 * mean(s => s.held)).toFixed(1)} %, width ${mean(s => s.width).toFixed(2)}, interval score ${
    mean(s => s.interval).toFixed(2)}`)
}

console.log('\nthe next opening of a bag, before any mark: within 10 %, held, width in minutes')
for (const { name, input } of CASES)
  for (const pours of [0, 1, 5]) {
    const { within, held, width } = bagScore(input, POURS, pours, 90_777)
    console.log([
      name.padEnd(36), `after ${pours}`, `${Math.round(100 * within)} %`, `${Math.round(100 * held)} %`, width.toFixed(1),
    ].join('  '))
  }
