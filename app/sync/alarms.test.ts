import 'fake-indexeddb/auto'
import { createPinia, setActivePinia } from 'pinia'
import { nextTick } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { chance } from '~demo/random'
import { tell } from '~demo/history'
import { BUCKETS, makeIds, MOULDS, planOf, WISHES } from '~demo/saltmarsh'
import { freezeRun } from '~core/plan/run'
import { summarisePour } from '~core/pour/projection'
import { foldPour } from '~core/pour/fold'
import type { PourEvent } from '~core/pour/events'
import { useAlarms } from './alarms'
import { useClock } from './clock'
import { usePours } from './pours'
import { useSession } from './session'

const sounded = vi.hoisted(() => ({ times: 0 }))
vi.mock('~/features/bench/telling', () => ({ sound: () => void sounded.times++ }))

/** One pour that is setting, as the server tells it: wetted at zero, opened when its forecast says. */
const NOW = 1_800_000_000_000, MINUTE = 60_000, ids = makeIds(chance(1))
const frozen = freezeRun({ ...planOf(ids, WISHES.lanterns), bag: undefined }, {
  moulds: [{ id: ids.moulds.lantern, ...MOULDS.lantern }],
  bucket: { id: ids.buckets.bowl, ...BUCKETS.bowl },
})
if (!frozen.ok) throw new Error('refused')
const { run } = frozen
let dice = 0
const events = tell(run, { wetAt: NOW - 20 * MINUTE, progress: 'setting' }, NOW, {
  ...chance(2),
  id: () => `00000000-0000-4000-8000-${String(++dice).padStart(12, '0')}`,
}, 'd').map(e => ({ ...e, pour: 'p', actor: 'x' }) as PourEvent)
const opens = Math.min(...foldPour(run, events).casts.map(c => c.openFrom!))

async function begin(): Promise<ReturnType<typeof useAlarms>> {
  const alarms = useAlarms()
  await usePours().load()
  alarms.start()
  await expect.poll(() => asked.filter(u => u.endsWith('/pours/p')).length).toBeGreaterThan(0)
  await new Promise(done => setTimeout(done, 20))
  return alarms
}
async function at(moment: number) {
  useClock().anchor(moment, 1)
  await nextTick()
}
let asked: string[] = [], jobs: object[] = []

beforeEach(() => {
  asked = []
  jobs = []
  sounded.times = 0
  vi.stubGlobal('navigator', {})
  vi.stubGlobal('localStorage', { getItem: () => null, setItem: () => {}, removeItem: () => {} })
  vi.stubGlobal('fetch', async (url: string) => {
    asked.push(url)
    const answers: Readonly<Record<string, unknown>> = {
      '/pours/p': { id: 'p', run, startedBy: 'x', events, seq: 1 },
      '/pours': [{ id: 'p', summary: summarisePour(run, foldPour(run, events)) }],
      '/library/job': jobs,
    }
    const body = Object.entries(answers).find(([end]) => url.endsWith(end))?.[1] ?? []
    return new Response(JSON.stringify(body))
  })
  setActivePinia(createPinia())
  useSession().facts = {
    person: { id: 'me', name: 'Me', email: 'm@example.org', role: 'member' },
    workshop: { id: 'w', name: 'W', units: { mass: 'g', volume: 'ml', length: 'mm', temperature: 'C' } },
    clock: { now: NOW, rate: 1 },
    demo: false,
    needsOwner: false,
  }
  useClock().anchor(NOW, 1)
})
afterEach(() => {
  vi.unstubAllGlobals()
})

describe('alarms on a device that is not at the bench', () => {
  it('tell of a moment as it comes, once, with a sound, and stand until they are put away', async () => {
    const alarms = await begin()
    await at(opens - MINUTE)
    const before = alarms.standing.length, sounds = sounded.times
    await at(opens + MINUTE)
    expect(alarms.standing.length).toBeGreaterThan(before)
    expect(sounded.times).toBe(sounds + 1)
    const [alarm] = alarms.standing
    expect(alarm).toMatchObject({ of: 'p', name: run.plan.name, to: '/bench/p' })
    await at(opens + 2 * MINUTE)
    expect(sounded.times).toBe(sounds + 1)
    alarms.dismiss(alarm!.id)
    expect(alarms.standing.map(a => a.id)).not.toContain(alarm!.id)
  })

  it('say of a night slept through only what was last', async () => {
    const alarms = await begin()
    await at(opens + 600 * MINUTE)
    expect(alarms.standing).toHaveLength(1)
    expect(sounded.times).toBe(1)
  })

  it('tell of a job too: that a wait is over, and where it is', async () => {
    const steps = [
      { id: 'a', kind: 'hand', name: 'Soap it', minutes: 1, after: [], began: NOW - 11 * MINUTE, ended: NOW - 10 * MINUTE },
      { id: 'b', kind: 'hand', name: 'Soap it again', minutes: 1, after: [{ step: 'a', at: 'end', least: 15, most: 40 }] },
    ]
    jobs = [{ id: 'j', kind: 'job', revision: 1, body: { name: 'Two halves', cautions: [], own: false, note: '', steps } }]
    const alarms = await begin()
    await vi.waitFor(async () => {
      await at(NOW + 4 * MINUTE)
      await at(NOW + 6 * MINUTE)
      expect(alarms.standing.find(a => a.of === 'j')).toMatchObject({
        name: 'Two halves', to: '/jobs/j', told: expect.stringMatching(/^Soap it again: now, until \d\d:\d\d\.$/) as string,
      })
    })
  })

  it('leave the pour at this bench to the bench, and keep quiet when asked', async () => {
    const alarms = await begin()
    alarms.here = 'p'
    await at(opens + MINUTE)
    expect([alarms.standing.length, sounded.times]).toEqual([0, 0])
    alarms.here = ''
    alarms.quiet = true
    await at(opens + 600 * MINUTE)
    expect(sounded.times).toBe(0)
  })
})
