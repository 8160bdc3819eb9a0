import { generator } from '../numeric/generator'
import { normalQuantile } from '../numeric/sampling'
import { Z80 } from '../units/quantity'
import type { Round, Task, Timetable } from './round'
import { nextStart } from './windows'

/**
 * How sure a timetable is: its tasks in their order on every person, with durations and setting times as they may come
 * out, played through some hundred times. Nothing is begun before it was planned; what is late pushes what follows.
 */

/** How far a day's tasks are from what they are taken for, all together and each by itself (as learned paces are). */
const DAY_SD = 0.1, TASK_SD = 0.15
/** The share of buckets' own speeds in the doubt of the set; the rest is the bag's and the room's, of all alike. */
const OWN_SHARE = 0.4
const DRAWS = 200

export interface Chance {
  /** How often all are out when they are due, 0 to 1; of 200 draws it is good to about 4 in 100. */
  readonly inTime: number
  /** When all are out nine times in ten, in units. */
  readonly nineInTen: number
}

interface Drawn {
  /** Of every task by its number. */
  readonly tasks: readonly number[]
  /** Of every bucket: how its set compares with the late end that was planned with. */
  readonly sets: readonly number[]
}

/**
 * @param setSd of the logarithm of the time to open, by the forecast; the timetable was planned with its 90 % end
 * @param seed a whole number from 1 on: the same gives the same
 */
export function chanceOf(round: Round, table: Timetable, setSd: number, seed = 1, draws = DRAWS): Chance {
  const draw = generator(seed), normal = () => normalQuantile(Math.min(1 - 1e-9, Math.max(1e-9, draw())))
  const order = table.tasks.map((_, i) => i).sort((a, b) => table.tasks[a]!.from - table.tasks[b]!.from)
  const due = Math.min(Infinity, ...round.shapes.map(s => s.due ?? Infinity))
  const own = setSd * OWN_SHARE, all = setSd * Math.sqrt(1 - OWN_SHARE ** 2)
  const ends = Array.from({ length: draws }, () => {
    const day = DAY_SD * normal(), bag = all * normal()
    return playThrough(round, table, order, {
      tasks: table.tasks.map(() => Math.exp(day + TASK_SD * normal())),
      sets: table.mixings.map(() => Math.exp(bag + own * normal() - Z80 * setSd)),
    })
  }).sort((a, b) => a - b)
  return { inTime: ends.filter(e => e <= due).length / draws, nineInTen: ends[Math.ceil(0.9 * draws) - 1]! }
}

/** The end of the last opening in one course of things. @param order of the tasks, by their planned start */
export function playThrough(
  round: Round, { tasks, mixings }: Timetable, order: readonly number[], drawn: Drawn,
): number {
  const free = round.persons.map(() => 0), ended: Partial<Record<Task['kind'], number>>[] = mixings.map(() => ({}))
  const wet: number[] = [], bucketFree = new Map<number, number>(), mouldFree = new Map<string, number>()
  let last = 0
  for (const i of order) {
    const task = tasks[i]!, m = mixings[task.mix], times = m && round.mixing(m.counts)
    const before = m && times ? readyFor(task, { m, times, ended: ended[task.mix]!, bucketFree, mouldFree }) : 0
    const set = task.kind === 'open' && m ? setOf(round, task, m, wet[task.mix]!, drawn.sets[task.mix]!) : 0
    const length = Math.max(task.to > task.from ? 1 : 0, Math.round((task.to - task.from) * drawn.tasks[i]!))
    const soonest = Math.max(task.from, free[task.person]!, before, set)
    const shift = nextStart({ shifts: round.persons[task.person]!, length }, soonest)
    // Whoever is behind at closing time stays.
    const start = Number.isFinite(shift) ? shift : soonest
    const end = start + length
    free[task.person] = end
    if (task.kind === 'sift') wet[task.mix] = start
    if (task.kind === 'clean' && m) bucketFree.set(m.bucket, end)
    if (m) ended[task.mix]![task.kind] = end
    if (task.kind === 'open') {
      mouldFree.set(`${task.shape} ${task.copy}`, end)
      last = Math.max(last, end)
    }
  }
  return last
}

interface Before {
  readonly m: Timetable['mixings'][number]
  readonly times: ReturnType<Round['mixing']>
  readonly ended: Partial<Record<Task['kind'], number>>
  readonly bucketFree: ReadonlyMap<number, number>
  readonly mouldFree: ReadonlyMap<string, number>
}

/** When everything a task waits for is there. */
function readyFor({ kind }: Task, { m, times, ended, bucketFree, mouldFree }: Before): number {
  if (kind === 'sift') return Math.max(ended.weigh ?? 0, bucketFree.get(m.bucket) ?? 0)
  if (kind === 'clean') return ended.fill ?? 0
  if (kind !== 'fill') return 0
  const moulds = m.moulds.map(f => (mouldFree.get(`${f.shape} ${f.copy}`) ?? 0) - times.stir)
  return Math.max((ended.sift ?? 0) + times.soak, ...moulds)
}

/** From when a mould can really be opened. */
function setOf(round: Round, task: Task, m: Timetable['mixings'][number], wet: number, factor: number): number {
  const filled = m.moulds.find(f => f.shape === task.shape && f.copy === task.copy)
  if (!filled) return 0
  const from = round.setFrom === 'wet' ? wet : filled.to + wet - m.wet
  return from + Math.ceil(round.shapes[task.shape!]!.set * factor)
}
