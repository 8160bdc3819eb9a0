import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { compareEvents, standing, type Happening, type PourEvent } from './events'
import { cautionsFor } from '../plan/cautions'
import { milestonesOf } from './milestones'
import { layoutRipples, rippleRadius } from './ripples'
import { castsOf, freezeRun, stepsOf, type FrozenRun } from '../plan/run'
import { foldPour } from './fold'
import type { MouldFacts, Plan } from '../plan/types'
import { workOutPlan } from '../plan/plan'
import { ratioOf } from '../gypsum/schools'
import { powderClass } from '../gypsum/powders'
import { stepWords } from '../plan/step-words'

const lantern: MouldFacts = {
  id: 'lantern',
  name: 'Lantern base',
  material: 'silicone',
  volume: { value: 412e-6, low: 400e-6, high: 424e-6 },
  mouth: { shape: 'round', width: 0.09, length: 0.09 },
  wall: 0.008,
  section: 0.03,
  fragile: false,
}
const plan: Plan = {
  name: 'Two batches',
  endUse: 'painted',
  fills: [{ mould: 'lantern', count: 3 }],
  classId: 'gypsum-cement',
  school: 'weighed',
  ratio: 0.42,
  scoop: { volume: 2.5e-4, filling: 'loose', perWater: 2 },
  waterTemperature: 18,
  roomTemperature: 20,
  bucket: 'pail',
  losses: 0.06,
  soakMinutes: 2,
  stir: { tool: 'hand', minutes: 2 },
  additions: [],
  known: { what: 'moulds', amount: 0 },
}
function frozen(change: Partial<Plan> = {}): FrozenRun {
  const result = freezeRun({ ...plan, ...change }, {
    moulds: [lantern],
    bucket: { id: 'pail', name: 'Small pail', vessel: { bottom: 0.12, top: 0.14, height: 0.12 } },
  })
  if (!result.ok) throw new Error(result.problems.map(p => p.code).join())
  return result.run
}
const run = frozen()
const T0 = 1_800_000_000_000

let made = 0
function event(at: number, happening: Happening, batch?: number, device = 'a', id = `e${++made}`): PourEvent {
  return {
    ...happening,
    id,
    pour: 'p',
    batch,
    version: 1,
    happenedAt: T0 + at * 1000,
    recordedAt: T0 + at * 1000,
    device,
    deviceSeq: made,
    actor: 'someone',
  }
}
const stage = (at: number, s: string, batch = 0, device = 'a') =>
  event(at, { kind: 'stage', data: { stage: s as 'sift' } }, batch, device)

describe('a run', () => {
  it('freezes batches, casts with their labels and the steps of every batch', () => {
    expect(run.batches.length).toBeGreaterThan(1)
    expect(castsOf(run).map(c => c.label)).toEqual(['Lantern base 1', 'Lantern base 2', 'Lantern base 3'])
    expect(castsOf(run).map(c => c.id)).toEqual(['1.1', '1.2', '2.1'])
    const stages = stepsOf(run).map(s => `${s.batch}${s.stage}`)
    expect(stages).toEqual([
      '0ready',
      '0weigh',
      '0sift',
      '0soak',
      '0stir',
      '0fill',
      '0clean-up',
      '1weigh',
      '1sift',
      '1soak',
      '1stir',
      '1fill',
      '1clean-up',
      '1set',
    ])
    expect(JSON.parse(JSON.stringify(run))).toEqual(run)
  })

  it('is refused with its problems when the plan cannot be poured', () => {
    expect(freezeRun({ ...plan, ratio: 0.1 }, run.world)).toMatchObject({ ok: false, problems: [{ field: 'ratio' }] })
  })
})

describe('the fold', () => {
  const whole = [
    stage(0, 'ready'),
    stage(60, 'weigh'),
    event(90, { kind: 'weighed', data: { what: 'water', mass: 0.5, how: 'scale' } }, 0),
    event(100, { kind: 'weighed', data: { what: 'powder', mass: 1.25, how: 'scale' } }, 0),
    stage(120, 'sift'),
    event(200, { kind: 'mark', data: { sign: 'islands' } }, 0),
    stage(240, 'soak'),
    stage(360, 'stir'),
    stage(480, 'fill'),
    event(500, { kind: 'filled', data: { cast: '1.1' } }, 0),
    stage(560, 'clean-up'),
    event(600, { kind: 'leftover', data: { where: 'bin' } }, 0),
    stage(700, 'weigh', 1),
    stage(720, 'sift', 1),
    stage(1100, 'fill', 1),
    stage(1200, 'clean-up', 1),
    stage(1300, 'set', 1),
  ]

  it('tells both clocks, what was weighed and when each mould was filled', () => {
    const state = foldPour(run, whole)
    const first = state.batches[0]!
    expect([first.wetAt, first.stirAt, first.filledAt, first.cleanAt].map(t => (t! - T0) / 1000)).toEqual([
      120,
      360,
      560,
      700,
    ])
    expect(first.ratio).toBeCloseTo(0.4, 9)
    expect(first.leftover).toBe('bin')
    expect(state.casts.map(c => [c.status, (c.filledAt! - T0) / 1000, c.fillInferred])).toEqual([
      ['setting', 500, false],
      ['setting', 560, true],
      ['setting', 1200, true],
    ])
    expect(state.status).toBe('setting')
    expect(state.steps[state.step]!.stage).toBe('set')
  })

  it('infers skipped stages backwards from the next known one by their planned lengths', () => {
    const second = foldPour(run, whole).batches[1]!
    const soak = second.stages.find(s => s.stage === 'soak')!, stir = second.stages.find(s => s.stage === 'stir')!
    expect([soak.inferred, stir.inferred]).toEqual([true, true])
    expect((T0 + 1_100_000 - stir.at) / 1000).toBeCloseTo(120, 6)
    expect(soak.at).toBeGreaterThanOrEqual(second.wetAt!)
  })

  it('follows casts through opening, judging and finishing; waste is finished at once', () => {
    const after = [
      ...whole,
      event(5000, { kind: 'opened', data: { cast: '1.1' } }),
      event(5100, { kind: 'judged', data: { cast: '1.1', verdict: 'good', defects: [], note: '' } }),
      event(5200, { kind: 'judged', data: { cast: '1.2', verdict: 'waste', defects: ['void'], note: 'tip missing' } }),
    ]
    expect(foldPour(run, after).casts.map(c => c.status)).toEqual(['judged', 'finished', 'setting'])
    const done = [
      ...after,
      event(5300, { kind: 'judged', data: { cast: '2.1', verdict: 'second', defects: ['streaks'], note: '' } }),
      event(9e4, { kind: 'finished', data: { cast: '1.1' } }),
    ]
    expect(foldPour(run, done).status).toBe('drying')
    const end = foldPour(run, [...done, event(9.1e4, { kind: 'finished', data: { cast: '2.1' } })])
    expect([end.status, (end.endedAt! - T0) / 1000]).toEqual(['finished', 91_000])
    expect(end.casts[0]!.readyFrom).toBe(T0 + 5_000_000 + run.drying.lantern!.low * 1000)
  })

  it('batches overlap: each keeps its own place, and going back in one leaves the other', () => {
    const beside = [
      stage(0, 'ready'),
      stage(10, 'weigh'),
      stage(20, 'sift'),
      stage(120, 'soak'),
      stage(140, 'weigh', 1),
      stage(150, 'sift', 1),
    ]
    const at = (list: PourEvent[]) => {
      const s = foldPour(run, list)
      return s.batches.map(b => b.step === undefined ? undefined : s.steps[b.step]!.stage)
    }
    expect(at(beside)).toEqual(['soak', 'sift'])
    expect(at([...beside, stage(240, 'stir')])).toEqual(['stir', 'sift'])
    expect(at([...beside, stage(240, 'stir'), stage(250, 'soak')])).toEqual(['soak', 'sift'])
    // Whoever pours the second has poured the first, though nobody said so.
    const poured = foldPour(run, [...beside, stage(240, 'stir'), stage(700, 'fill', 1)])
    expect(poured.batches[0]!.stages.at(-1)).toMatchObject({ stage: 'clean-up', inferred: true })
    expect(poured.batches[0]!.filledAt).toBeLessThanOrEqual(T0 + 700_000)
  })

  it('a bucket is clean when it is said, while another batch is under way', () => {
    const list = [
      stage(20, 'sift'),
      stage(140, 'sift', 1),
      stage(240, 'stir'),
      stage(300, 'fill'),
      stage(360, 'clean-up'),
    ]
    expect(foldPour(run, list).batches[0]!.cleanAt).toBeUndefined()
    const clean = foldPour(run, [...list, event(420, { kind: 'cleaned', data: {} }, 0)])
    expect((clean.batches[0]!.cleanAt! - T0) / 1000).toBe(420)
    expect([clean.batches[0]!.last?.kind, clean.batches[1]!.last?.kind]).toEqual(['cleaned', 'stage'])
  })

  it('a step told again by a screen that had not heard is the same step, and older entries fold as they did', () => {
    const told = (at: number, s: string, from: string, device = 'a') =>
      event(at, { kind: 'stage', data: { stage: s as 'sift', from: from as 'weigh' } }, 0, device)
    const begun = [stage(0, 'ready'), told(60, 'weigh', 'ready'), told(120, 'sift', 'weigh'), told(240, 'soak', 'sift')]
    const stale = told(400, 'sift', 'weigh', 'b'), stir = told(360, 'stir', 'soak')
    const state = foldPour(run, [...begun, stir, stale])
    expect(state.steps[state.step]!.stage).toBe('stir')
    expect((state.batches[0]!.wetAt! - T0) / 1000).toBe(120)
    expect(state.repeats).toEqual([stale])
    expect(state.batches[0]!.last).toBe(stir)
    // As version 1 told it, nobody knows from where: it goes back.
    const old = foldPour(run, [...begun, stir, stage(400, 'sift', 0, 'b')])
    expect([old.steps[old.step]!.stage, (old.batches[0]!.wetAt! - T0) / 1000]).toEqual(['sift', 400])
    // What was only inferred may still be told as it was.
    const inferred = foldPour(run, [stage(0, 'ready'), told(700, 'weigh', 'unbegun'), stage(900, 'fill', 1)])
    expect(inferred.batches[0]!.stages.at(-1)).toMatchObject({ stage: 'clean-up', inferred: true })
  })

  it('stale devices never make a pour look younger', () => {
    const stages = stepsOf(run).filter(s => s.batch === 0).map(s => s.stage)
    // A device: how many of the others' entries it has heard of when it presses "next".
    const press = fc.record({
      device: fc.constantFrom('a', 'b', 'c'),
      hears: fc.boolean(),
      later: fc.integer({ min: 1, max: 300 }),
    })
    fc.assert(fc.property(fc.array(press, { minLength: 1, maxLength: 40 }), (presses) => {
      const all: PourEvent[] = [stage(0, 'ready')], heard = new Map<string, readonly PourEvent[]>()
      let now = 0, wetAt: number | undefined, openFrom: number | undefined
      for (const { device, hears, later } of presses) {
        now += later
        const known = hears ? [...all] : heard.get(device) ?? [all[0]!]
        const { step, steps } = foldPour(run, known), from = steps[step]!.stage
        const next = stages[stages.indexOf(from) + 1]
        if (!next) continue
        const told = event(now, { kind: 'stage', data: { stage: next, from } }, 0, device)
        all.push(told)
        heard.set(device, [...known, told])
        const after = foldPour(run, all)
        if (wetAt !== undefined) expect(after.batches[0]!.wetAt).toBe(wetAt)
        if (openFrom !== undefined) expect(after.casts[0]!.openFrom).toBe(openFrom)
        wetAt = after.batches[0]!.wetAt
        openFrom = after.casts[0]!.openFrom
      }
    }))
  })

  it('the room is read for every batch, water only for its own', () => {
    const read = foldPour(run, [
      event(1, { kind: 'temperature', data: { celsius: 14, where: 'room' } }),
      event(2, { kind: 'temperature', data: { celsius: 11, where: 'water' } }, 1),
    ])
    expect(read.batches.map(b => [b.room, b.water])).toEqual([[14, undefined], [14, 11]])
  })

  it('an undo takes back what it names, and can itself be taken back', () => {
    const undo = event(245, { kind: 'undo', data: { event: whole[6]!.id } })
    const taken = foldPour(run, [...whole.slice(0, 7), undo])
    expect(taken.steps[taken.step]!.stage).toBe('sift')
    expect(taken.last?.id).toBe(whole[5]!.id)
    const again = foldPour(run, [...whole.slice(0, 7), undo, event(250, { kind: 'undo', data: { event: undo.id } })])
    expect(again.steps[again.step]!.stage).toBe('soak')
  })

  it('an undo that comes before what it names, or names itself, does nothing', () => {
    const early = event(1, { kind: 'undo', data: { event: whole[6]!.id } })
    const self = { ...event(300, { kind: 'undo', data: { event: 'self' } }), id: 'self' }
    expect(standing([...whole, early, self])).toHaveLength(whole.length + 2)
  })

  it('a mark given two minutes late lands where it happened', () => {
    const late = { ...event(420, { kind: 'mark', data: { sign: 'lumps' } }, 0), recordedAt: T0 + 540_000 }
    expect(foldPour(run, [...whole, late]).batches[0]!.marks.map(m => (m.at - T0) / 1000)).toEqual([200, 420])
  })

  it('is the same whatever order and however often events arrive, from several devices', () => {
    const arbitrary = fc.record({
      at: fc.integer({ min: 0, max: 4000 }),
      device: fc.constantFrom('a', 'b', 'c'),
      batch: fc.constantFrom(0, 1),
      what: fc.constantFrom<Happening>(
        { kind: 'stage', data: { stage: 'stir' } },
        { kind: 'stage', data: { stage: 'weigh' } },
        { kind: 'mark', data: { sign: 'webbing' } },
        { kind: 'opened', data: { cast: '1.2' } },
        { kind: 'undo', data: { event: 'x3' } },
        { kind: 'undo', data: { event: 'x5' } },
        { kind: 'finished', data: { cast: '9.9' } },
        { kind: 'judged', data: { cast: '1.1', verdict: 'waste', defects: [], note: '' } },
      ),
    })
    fc.assert(fc.property(fc.array(arbitrary, { maxLength: 15 }), fc.integer(), (raw, seed) => {
      const events = raw.map((r, i) => ({ ...event(r.at, r.what, r.batch, r.device), id: `x${i}`, deviceSeq: i }))
      const shuffled = [...events, ...events.slice(0, 4)].map((e, i) => ({ e, k: Math.sin(seed + i * 7919) })).sort((
        a,
        b,
      ) => a.k - b.k).map(x => x.e)
      expect(foldPour(run, shuffled)).toEqual(foldPour(run, events))
    }))
  })

  it('orders ties the same way everywhere', () => {
    const a = stage(10, 'soak', 0, 'a'), b = stage(10, 'soak', 0, 'b')
    expect(compareEvents(a, b)).toBeLessThan(0)
    expect(compareEvents(b, a)).toBeGreaterThan(0)
    expect(compareEvents(a, a)).toBe(0)
  })

  it('an abandoned pour is over, and keeps why', () => {
    const state = foldPour(run, [...whole, event(1400, { kind: 'abandoned', data: { reason: 'set in the bucket' } })])
    expect([state.status, (state.endedAt! - T0) / 1000]).toEqual(['abandoned', 1400])
  })

  it('milestones carry what happened and shift the steps to come', () => {
    const m = milestonesOf(run, foldPour(run, whole.slice(0, 7)), 0)
    expect(m.map(x => x.id)).toEqual(['sift', 'soak', 'stir', 'fill', 'set', 'warm', 'open', 'dry'])
    expect(m[0]!.actual).toBe(120)
    expect(m[1]!.value).toBeCloseTo(240, 6)
    expect(m[4]!.actual).toBeUndefined()
    expect(m[4]!.value).toBe(run.moments.lantern!.glossGone.value)
  })
})

describe('the ripple chart', () => {
  const milestones = milestonesOf(run, foldPour(run, []), 0)

  it('puts moments on a log scale and everything inside the square', () => {
    const layout = layoutRipples(milestones, 600, 3, 440, 15)
    expect(rippleRadius(0, 1e5, 440)).toBe(44)
    expect(layout.arcs.map(a => a.r)).toEqual([...layout.arcs.map(a => a.r)].sort((a, b) => a - b))
    for (const arc of layout.arcs) {
      expect(arc.inner <= arc.r && arc.r <= arc.outer && arc.outer <= 440).toBe(true)
      expect(Math.hypot(arc.label.x, arc.label.y)).toBeCloseTo(arc.r, 6)
    }
    expect(layout.axis[0]!.label).toBe('1 min')
    expect(layout.ticks.every(t => t.done)).toBe(true)
  })

  it('no two words cover each other', () => {
    const { arcs } = layoutRipples(milestones, 0, 0, 440, 15)
    for (const a of arcs)
      for (const b of arcs) {
        if (a === b) continue
        const clear = Math.abs(a.label.x - b.label.x) >= 15 * 0.31 * (a.word.length + b.word.length + 3) - 1e-9
          || Math.abs(a.label.y - b.label.y) >= 15 * 1.35 - 1e-9
        expect(clear, `${a.word} and ${b.word}`).toBe(true)
      }
  })

  it('the disc grows with time and is nothing before powder meets water', () => {
    expect(layoutRipples(milestones, undefined, 1, 28).now).toBe(0)
    expect(layoutRipples(milestones, 60, 3, 28).now).toBeLessThan(layoutRipples(milestones, 600, 3, 28).now)
  })
})

describe('cautions', () => {
  it('skin comes with every pour, silica and glass where they are', () => {
    expect(cautionsFor(plan, run.world).map(c => c.code)).toEqual(['skin', 'dust', 'drain', 'sheet'])
    const kiln = cautionsFor({
      ...plan,
      classId: 'plaster-silica',
      endUse: 'investment',
      stir: { tool: 'drill', minutes: 2 },
    }, { moulds: [{ ...lantern, material: 'glass' }] })
    expect(kiln.map(c => c.code)).toEqual(['silica', 'skin', 'dust', 'drain', 'end-use', 'glass', 'drill', 'sheet'])
  })
})

describe('water by feel onto powder that stands in the bucket', () => {
  const felt = frozen({ school: 'powder-first', classId: 'casting-plaster', ratio: 0.6 })
  const powder: Happening = { kind: 'weighed', data: { what: 'powder', mass: 1, how: 'scale' } }
  const jug = (when: 'before' | 'after', mass: number): Happening => ({ kind: 'jug', data: { when, mass } })
  const told = (...happenings: readonly Happening[]) =>
    foldPour(felt, happenings.map((h, i) => event(i, h, 0))).batches[0]!

  it('what is left in the jug gives the true ratio; until it is known there is none', () => {
    expect(told(powder, jug('before', 0.8)).ratio).toBeUndefined()
    const done = told(powder, jug('before', 0.8), jug('after', 0.13))
    expect([done.weighed.water, done.ratio]).toEqual([expect.closeTo(0.67, 9), expect.closeTo(0.67, 9)])
    // Read again, whatever was corrected last holds; more left than there was tells nothing.
    expect(told(powder, jug('before', 0.8), jug('after', 0.13), jug('after', 0)).ratio).toBeCloseTo(0.8, 9)
    expect(told(powder, jug('before', 0.8), jug('after', 0.9)).ratio).toBeUndefined()
  })

  it('is stirred at once and never soaked, and the plan says what the thin end costs', () => {
    const { sifted, soaked, stirred } = felt.batches[0]!.steps
    expect(soaked.value).toBe(sifted.value)
    expect(stirred.value - soaked.value).toBe(60 * plan.stir.minutes)
    expect(stepsOf(felt).filter(s => s.batch === 0).map(s => stepWords(s).instruction)).toEqual([
      'Get the moulds and table ready', 'Weigh the powder, fill the jug', 'Most of the water in',
      'Stir, and let water in until it runs', 'Tap the bucket, then pour', 'Clean up while it sets',
    ])
    const { problems } = workOutPlan(felt.plan, felt.world), thin = problems.find(p => p.code === 'may-end-thin')
    expect(thin?.code === 'may-end-thin' && thin.ratio)
      .toBeCloseTo(ratioOf('powder-first', powderClass('casting-plaster'), 0.6, 18).high, 9)
    expect(thin?.code === 'may-end-thin' && thin.weaker).toBeGreaterThan(0.1)
    expect(thin?.code === 'may-end-thin' && thin.glossGone).toBeGreaterThan(0)
  })
})
