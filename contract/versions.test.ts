import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { learningInputs } from '~core/forecast/observations'
import { castsOf, stepsOf } from '~core/plan/run'
import type { PourEvent } from '~core/pour/events'
import { foldPour } from '~core/pour/fold'
import { milestonesOf } from '~core/pour/milestones'
import { centreMoments } from '~core/setting/moments'
import { CLASSES_OF_LAYERS_1 } from './classes-1'
import { sentEventSchema } from './pour'
import { ITEMS, PLANS, upcast, upcastEvent, upcastQuery, upcastRun } from './versions'

/** Rows as version 1 wrote them, and what was left out of them in earlier days: `fixtures/version-1.json`. */
const stored = JSON.parse(readFileSync(new URL('./fixtures/version-1.json', import.meta.url), 'utf8')) as {
  readonly plans: readonly { readonly why: string, readonly version: number, readonly body: object }[]
  readonly items: readonly { readonly why: string, readonly kind: keyof typeof ITEMS, readonly body: object }[]
  readonly runs: readonly { readonly why: string, readonly body: object }[]
}

describe('what earlier versions stored', () => {
  it.each(stored.plans.map(p => [p.why, p] as const))('a plan %s is read, and nothing of it is lost', (_, p) => {
    const read = upcast(PLANS, p.version, p.body)
    expect(read).toEqual({ ok: true, value: p.body })
  })

  it.each(stored.items.map(i => [`${i.kind} ${i.why}`, i] as const))(
    'a %s is read, and nothing of it is lost',
    (_, i) => {
      expect(upcast<unknown>(ITEMS[i.kind], 1, i.body)).toEqual({ ok: true, value: i.body })
    },
  )

  it.each(stored.runs.map(r => [r.why, r] as const))('a run %s keeps all it had, has its powder beside it, and folds', (_, r) => {
    const read = upcastRun(r.body)
    if (!read.ok) throw new Error(read.why)
    const { powder, ...rest } = read.value
    expect(rest).toEqual({ ...r.body, schema: 2 })
    expect(powder).toEqual(CLASSES_OF_LAYERS_1[read.value.plan.classId])
    expect(foldPour(read.value, []).casts).toHaveLength(castsOf(read.value).length)
  })

  it.each(stored.runs.map(r => [r.why, r] as const))(
    'a pour of a run %s, open in each of its steps: what was frozen stays, what is to come is foretold',
    (_, r) => {
      const read = upcastRun(r.body)
      if (!read.ok) throw new Error(read.why)
      const run = read.value, began = Date.UTC(2026, 10, 1, 9)
      const events = stepsOf(run).map(({ stage, batch }, i): PourEvent => ({
        id: `e${i}`, pour: 'p', actor: 'a', device: 'd', deviceSeq: i, batch, version: 1, kind: 'stage', data: { stage },
        happenedAt: began + 120_000 * i, recordedAt: began + 120_000 * i,
      }))
      for (let n = 1; n <= events.length; n++) {
        const state = foldPour(run, events.slice(0, n))
        expect(state.status).not.toBe('abandoned')
        for (const { input } of learningInputs(run, state, 0))
          expect(centreMoments(input).glossGone).toBeGreaterThan(60)
        for (const m of milestonesOf(run, state, 0)) expect(Number.isFinite(m.value)).toBe(true)
      }
      expect(run.moments).toEqual((r.body as { moments: object }).moments)
    },
  )

  it('what a newer version wrote, and what none did, is told and not thrown', () => {
    const [plan] = stored.plans, [run] = stored.runs
    expect(upcast(PLANS, 2, plan!.body)).toEqual({ ok: false, why: 'newer' })
    expect(upcast(PLANS, 0, plan!.body)).toEqual({ ok: false, why: 'broken' })
    expect(upcast(PLANS, 1, { ...plan!.body, ratio: 'thick' })).toEqual({ ok: false, why: 'broken' })
    expect(upcastRun({ ...run!.body, schema: 3 })).toEqual({ ok: false, why: 'newer' })
    for (const nonsense of [null, 7, 'run', {}, { schema: 1 }, { ...run!.body, plan: { classId: 'none' } }]) expect(upcastRun(nonsense)).toMatchObject({ ok: false })
    expect(upcastEvent('note', 6, {})).toEqual({ ok: false, why: 'newer' })
    // A measure of a check list was kept by its name once; a name of someone's own stays.
    expect(upcastEvent('measured', 1, { what: 'Thinnest place' })).toEqual({ ok: true, value: { what: 'thinnest' } })
    expect(upcastEvent('measured', 1, { what: 'Across' })).toEqual({ ok: true, value: { what: 'Across' } })
    expect(upcastEvent('note', 1, { text: 'x' })).toEqual({ ok: true, value: { text: 'x' } })
    // Of a step of version 1 it is not known from which it was told; of version 2 it is.
    expect(upcastEvent('stage', 1, { stage: 'sift' })).toEqual({ ok: true, value: { stage: 'sift' } })
    expect(upcastEvent('stage', 2, { stage: 'sift', from: 'weigh' }).ok).toBe(true)
  })

  it('places of before there was weather are those of today, a face in the sun open to the sky', () => {
    const air = { celsius: 24, humidity: 0.4 }, told = (place: string) => ({ cast: '1.1', place, air })
    for (const version of [1, 2]) {
      expect(upcastEvent('placed', version, told('sun'))).toEqual({
        ok: true,
        value: { ...told('sky'), weather: { swing: 5, wind: 'light', sky: 'sun' } },
      })
      expect(upcastEvent('placed', version, told('ground'))).toEqual({ ok: true, value: told('board') })
      expect(upcastEvent('placed', version, told('rack'))).toEqual({ ok: true, value: told('rack') })
    }
    // A device that was away sends them as it wrote them, and folds them as they are meant.
    const envelope = { id: crypto.randomUUID(), happenedAt: 1.7e12, recordedAt: 1.7e12, device: 'd', deviceSeq: 1 }
    const sent = { ...envelope, version: 2, kind: 'placed', data: told('sun') }
    expect(sentEventSchema.safeParse(sent).success).toBe(true)
    expect(sentEventSchema.safeParse({ ...sent, data: told('moon') }).success).toBe(false)
  })

  it('steps are taken one after the other', () => {
    const chain = {
      ...PLANS,
      version: 3,
      steps: {
        1: (p: object) => ({ ...p, losses: 0.1 }),
        2: (p: { losses: number }) => ({ ...p, losses: p.losses * 2 }),
      },
    }
    expect(upcast(chain, 1, stored.plans[0]!.body)).toMatchObject({ ok: true, value: { losses: 0.2 } })
    const faulty = { ...chain, steps: { 1: () => { throw new TypeError('no such field') } } }
    expect(upcast(faulty, 1, stored.plans[0]!.body)).toEqual({ ok: false, why: 'broken' })
  })

  it('a view that was kept with the words of its day asks by ids', () => {
    const facts = ['status:on the bench', 'powder:Die stone, Type 4', 'powder:casting-plaster', 'mould:m1']
    expect(upcastQuery({ find: 'x', facts })).toEqual({
      ok: true,
      value: { find: 'x', facts: ['status:bench', 'powder:dental-type-4', 'powder:casting-plaster', 'mould:m1'] },
    })
    expect(upcastQuery({ facts: 'all' })).toEqual({ ok: false, why: 'broken' })
  })
})
