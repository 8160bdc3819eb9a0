import 'fake-indexeddb/auto'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { chance } from '~demo/random'
import { BUCKETS, makeIds, MOULDS, planOf, WISHES } from '~demo/saltmarsh'
import type { Happening } from '~core/pour/events'
import { freezeRun } from '~core/plan/run'
import type { BatchAsked, BatchLearnt } from '~/workers/learn.worker'
import { useClock } from './clock'
import { useRecords } from './records'
import { useRun } from './run'
import { useSession } from './session'

/** The worker's questions, each answered when the test says so. */
interface Asked {
  readonly batches: readonly BatchAsked[]
  readonly answer: (learnt: readonly BatchLearnt[]) => void
}
const asked: Asked[] = []
vi.mock('comlink', () => ({
  wrap: () => ({
    learn: (batches: readonly BatchAsked[]) => new Promise(answer => asked.push({ batches, answer })),
  }),
}))

const NOW = 1_800_000_000_000, ids = makeIds(chance(1))
const plan = { ...planOf(ids, WISHES.lanterns), bag: undefined }
const frozen = freezeRun(plan, {
  moulds: [{ id: ids.moulds.lantern, ...MOULDS.lantern }],
  bucket: { id: ids.buckets.bowl, ...BUCKETS.bowl },
})
if (!frozen.ok) throw new Error('refused')
const { run } = frozen

beforeEach(() => {
  asked.length = 0
  vi.stubGlobal('navigator', {})
  vi.stubGlobal('Worker', class { terminate() {} })
  vi.stubGlobal('fetch', () => Promise.reject(new TypeError('no network')))
  setActivePinia(createPinia())
  useSession().facts = {
    person: { id: 'me', name: 'Me', email: 'm@example.org', role: 'member' },
    workshop: { id: `w${Math.random()}`, name: 'W', units: { mass: 'g', volume: 'ml', length: 'mm', temperature: 'C' } },
    clock: { now: NOW, rate: 1 }, demo: false, needsOwner: false,
  }
  useClock().anchor(NOW, 1)
})
afterEach(() => vi.unstubAllGlobals())

/** Answers a question as if each thing seen made it open ten minutes sooner. */
function answer(n: number): void {
  const { batches, answer } = asked[n]!
  answer(batches.map(({ batch, seen }) => ({
    batch, seen: seen.length, taught: { mean: -0.1 * seen.length, sd: 0.3 / (1 + seen.length) },
    moments: Object.fromEntries(Object.entries(run.moments).map(([mould, m]) =>
      [mould, { ...m, open: { ...m.open, from: m.open.from - 600 * seen.length } }])),
  })))
}
const mark = (sign: string) => ({ kind: 'mark', data: { sign } }) as Happening
const foreseen = () => useRun().state!.batches[0]!.foreseen
const told = () => useRecords().waiting.filter(w => w.event.kind === 'foreseen').length

/** A pour of one's own whose first bucket is wet, with its questions so far answered. */
async function wet() {
  const store = useRun()
  await store.load(await useRecords().begin(plan, run))
  for (const [i, stage] of (['weigh', 'sift', 'soak', 'stir', 'fill'] as const).entries())
    await store.record({ kind: 'stage', data: { stage } }, 0, NOW + 60_000 * i)
  // A question for each stage that is wet.
  await expect.poll(() => asked.length).toBe(4)
  asked.forEach((_, n) => answer(n))
  asked.length = 0
  return store
}

it('writes down what is foreseen after the last that was told, and not what an older answer knew', async () => {
  const store = await wet()
  await store.record(mark('gloss-gone'), 0, NOW + 900_000)
  await expect.poll(() => asked.length).toBe(1)
  await store.record(mark('warm'), 0, NOW + 1_000_000)
  await expect.poll(() => asked.length).toBe(2)
  answer(0)
  answer(1)
  await expect.poll(() => foreseen()?.taught?.mean).toBeCloseTo(-0.2)
  expect(told()).toBe(1)
})

it('what is taken back takes its forecast with it, however quickly that was', async () => {
  const store = await wet()
  await store.record(mark('gloss-gone'), 0, NOW + 900_000)
  await expect.poll(() => asked.length).toBe(1)
  answer(0)
  await expect.poll(() => foreseen()?.taught?.mean).toBeCloseTo(-0.1)
  await store.record(mark('warm'), 0, NOW + 1_000_000)
  await expect.poll(() => asked.length).toBe(2)
  // Answered, and taken back before that is written down.
  answer(1)
  const last = useRecords().waiting.find(w => w.event.kind === 'mark' && w.event.data.sign === 'warm')!.event
  await store.undo({ ...last, pour: store.id, actor: 'me' } as Parameters<typeof store.undo>[0])
  await expect.poll(() => asked.length).toBe(3)
  answer(2)
  await expect.poll(() => foreseen()?.taught?.mean).toBeCloseTo(-0.1)
  await expect.poll(() => told()).toBe(3)
})
