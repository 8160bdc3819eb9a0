import { effectScope, nextTick, reactive } from 'vue'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { useProbe } from './useProbe'

const WET = 1_800_000_000_000.4
interface Recorded {
  readonly kind: string
  readonly data: { readonly celsius?: number, readonly sign?: string }
  readonly batch: number
  readonly at: number
}
const told: Recorded[] = []
const { bench } = vi.hoisted(() => ({
  bench: {} as {
    run: Record<string, unknown>
    thermometer: { wanted: boolean, heardAt: number, celsius?: number }
    now: number
  },
}))
vi.mock('~/sync/run', () => ({ useRun: () => bench.run }))
vi.mock('~/sync/clock', () => ({ useClock: () => ({ read: () => bench.now }) }))
vi.mock('~/sync/session', () => ({ useSession: () => ({ mayWrite: true }) }))
vi.mock('~/sync/climate', () => ({ useThermometer: () => bench.thermometer, useRoom: () => ({ here: false }) }))

/** What was recorded and kept so far, as the pour's state says it; the server rounds to the millisecond. */
function kept(list: readonly Recorded[], batches = 1) {
  bench.run.state = {
    status: 'setting',
    batches: Array.from({ length: batches }, (_, b) => ({
      wetAt: WET,
      stages: [{ stage: 'fill' }],
      room: 20,
      temperatures: list.filter(r => r.batch === b && r.kind === 'temperature').map(r => ({
        at: Math.round(r.at),
        celsius: r.data.celsius,
      })),
      marks: list.filter(r => r.batch === b && r.kind === 'mark').map(r => ({ sign: r.data.sign })),
    })),
  }
}
async function reads(minute: number, celsius: number) {
  bench.now = WET + minute * 60_000 + 0.3
  bench.thermometer.celsius = celsius
  bench.thermometer.heardAt++
  await nextTick()
}
const scope = effectScope()
beforeEach(() => {
  told.length = 0
  bench.thermometer = reactive({ wanted: true, heardAt: 0 })
  bench.run = reactive({
    id: 'p',
    state: undefined,
    record: (h: Recorded, batch: number, at = bench.now + 5) => told.push({ ...h, batch, at }),
  })
  kept([])
})
afterEach(() => scope.stop())

it('a slow disk: what is told and not yet kept is not told again, neither a reading nor the warmest', async () => {
  scope.run(() => useProbe())
  const rising = [20, 24, 28, 32, 36, 40, 44, 46, 47, 47.2], falling = [46, 44, 42, 40, 38, 36, 34, 32, 30]
  for (const [i, t] of rising.entries()) {
    await reads(10 + i, t)
    kept(told)
    await nextTick()
  }
  for (const [i, t] of falling.entries()) {
    await reads(20 + i, t)
    // Its temperatures are kept at once, its mark only later.
    kept(told.filter(r => r.kind === 'temperature'))
    await nextTick()
  }
  expect(told.filter(r => r.kind === 'mark')).toMatchObject([{ data: { sign: 'warmest' }, batch: 0 }])
  const at = told.filter(r => r.kind === 'temperature').map(r => r.at)
  expect(new Set(at).size).toBe(at.length)
  expect(at.every(Number.isInteger)).toBe(true)

  // The next batch has its own.
  kept(told, 2)
  await nextTick()
  for (const [i, t] of [...rising, ...falling].entries()) {
    await reads(40 + i, t)
    kept(told, 2)
    await nextTick()
  }
  expect(told.filter(r => r.kind === 'mark').map(r => r.batch)).toEqual([0, 1])
})
