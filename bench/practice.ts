import { randomInt } from 'node:crypto'
import { debrief } from '../core/practice/debrief'
import { outcomeOf } from '../core/practice/outcome'
import { beginRun, perform, wait } from '../core/practice/run'
import { SCENARIOS } from '../core/practice/scenarios'
import { follow } from '../core/practice/script'

/**
 * Each scenario with seeds that nobody tuned to: how often an expert makes good pieces, how often its slip spoils
 * something, and how often that slip is then named first; first or second with an uneven hand. And how long a step, a
 * whole run and a debrief take. `tsx --tsconfig tsconfig.tools.json bench/practice.ts [SEED] [HOW MANY]`
 */
const seed = Number(process.argv[2]) || randomInt(1, 2 ** 30), many = Number(process.argv[3]) || 20
const seeds = Array.from({ length: many }, (_, i) => seed + i)
const percent = (n: number, of: number) => of === 0 ? '–' : `${Math.round(100 * n / of)} %`

console.log(`Seed ${seed}, ${many} of each`)
const totals = { good: 0, spoilt: 0, first: 0, uneven: 0, unevenSpoilt: 0, slowest: 0 }
for (const { id, setup, expert, slip, names } of SCENARIOS) {
  const good = seeds.filter(s => outcomeOf(follow(setup, s, expert)).verdict === 'good').length
  let spoilt = 0, first = 0, uneven = 0, unevenSpoilt = 0, slowest = 0
  for (const s of seeds) {
    const began = performance.now(), told = debrief(setup, s, follow(setup, s, slip))
    slowest = Math.max(slowest, performance.now() - began)
    if (told.outcome.verdict !== 'good') {
      spoilt++
      if (told.changes[0]?.levers.includes(names)) first++
    }
    const shaky = debrief(setup, s, follow(setup, s, slip, { seed: s }))
    if (shaky.outcome.verdict === 'good') continue
    unevenSpoilt++
    if (shaky.changes.slice(0, 2).some(c => c.levers.includes(names))) uneven++
  }
  totals.good += good
  totals.spoilt += spoilt
  totals.first += first
  totals.uneven += uneven
  totals.unevenSpoilt += unevenSpoilt
  totals.slowest = Math.max(totals.slowest, slowest)
  console.log(`${id.padEnd(14)} expert good ${percent(good, many)}; slip spoils ${percent(spoilt, many)}, named first ${
    percent(first, spoilt)}; uneven, first or second ${percent(uneven, unevenSpoilt)}; debrief ${Math.round(slowest)} ms at most`)
}
const all = many * SCENARIOS.length
console.log(`all            expert good ${percent(totals.good, all)}; slip spoils ${percent(totals.spoilt, all)}, named first ${
  percent(totals.first, totals.spoilt)}; uneven, first or second ${percent(totals.uneven, totals.unevenSpoilt)}`)

/** A surface that takes powder, stepped: the dearest half second there is. */
const { setup } = SCENARIOS[0]!, run = beginRun(setup, seed)
perform(run, { gap: 0, act: { do: 'water', kg: 0.7, celsius: 20 } })
for (let i = 0; i < 10; i++) perform(run, { gap: 1, act: { do: 'strew', x: 0.3 + 0.04 * i, y: 0.5, kg: 0.08, how: 'hand' } })
const steps = 400, began = performance.now()
wait(run, steps / 2)
console.log(`a step ${((performance.now() - began) / steps).toFixed(3)} ms; a debrief at most ${Math.round(totals.slowest)} ms`)
