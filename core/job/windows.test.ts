import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { begunAnew, CHAINS } from './chains'
import type { Expected, JobStep, Link, PourTimes } from './types'
import { workOutJob } from './windows'
import { CHAIN_IDS } from './words'

const MIN = 60_000, NOW = 1_800_000_000_000
const about = (minutes: number): Expected => ({ low: 54 * minutes, value: 60 * minutes, high: 66 * minutes })
const pourTimes = (wetAt?: number): PourTimes =>
  ({ wetAt, filled: about(7), signs: { gloss: about(25), warmest: about(40), open: about(60), dry: about(5000) } })
const poursOf = (steps: readonly JobStep[]) =>
  new Map(steps.filter(s => s.kind === 'pour').map(s => [s.id, pourTimes()] as const))
const hand = (id: string, minutes: number, ...after: Link[]): JobStep => ({ id, kind: 'hand', minutes, after, name: id })
const after = (step: string, least: number, most?: number): Link => ({ step, at: 'end', least, most })
const of = (times: ReturnType<typeof workOutJob>, id: string) => times.steps.find(s => s.id === id)!

describe('chains to begin from', () => {
  it.each(CHAINS.map(c => [c.id, c] as const))('%s: each step is worded, follows what is there, and all fit', (_, { steps }) => {
    const ids = steps.map(s => s.id)
    expect(new Set(ids).size).toBe(ids.length)
    for (const s of steps) for (const l of s.after) expect(ids).toContain(l.step)
    const times = workOutJob(steps, poursOf(steps), NOW)
    expect(times.problem).toBeUndefined()
    for (const t of times.steps) {
      expect(t.late, t.id).toBeUndefined()
      expect(t.to ?? Infinity, t.id).toBeGreaterThanOrEqual(t.from)
    }
    expect(times.next).toBeDefined()
    // Done each as early as it may be, one after the other, nothing is ever too late.
    let now = NOW, told = begunAnew(steps), pours = poursOf(steps)
    for (let n = 0; n < 40; n++) {
      const { next, steps: all } = workOutJob(told, pours, now)
      if (next === undefined) break
      const at = all.find(s => s.id === next)!, began = Math.max(now, at.from)
      expect(at.late, next).toBeUndefined()
      now = began + Math.max(1000, at.ends - at.from)
      told = told.map(s => s.id === next && s.kind !== 'pour' ? { ...s, began, ended: now } : s)
      const poured = pours.get(next)
      if (poured) pours = new Map([...pours, [next, { ...poured, wetAt: began, filled: { ...about(7), actual: 420 } }]])
    }
    expect(workOutJob(told, pours, now + 30 * 86_400_000).steps.every(s => s.state === 'done')).toBe(true)
  })
  it('are all worded, and there are at least twelve', () => {
    expect(CHAINS.map(c => c.id).toSorted()).toEqual([...CHAIN_IDS].toSorted())
    expect(CHAINS.length).toBeGreaterThanOrEqual(12)
  })
})

describe('windows of a job', () => {
  const shell = CHAINS.find(c => c.id === 'shell')!.steps
  it('a second coat has until ten minutes after the gloss may go, counted from the early side; marks move it', () => {
    const wet = NOW - 10 * MIN
    const done = (id: string, began: number, ended: number) => (s: JobStep) => s.id === id ? { ...s, began, ended } : s
    const told = shell.map(done('ready', wet - 60 * MIN, wet - 30 * MIN)).map(done('weigh', wet - 30 * MIN, wet))
      .map(done('look', wet + 8 * MIN, wet + 9 * MIN))
    const face = { ...pourTimes(wet), filled: { ...about(7), actual: 420 } }
    const before = of(workOutJob(told, new Map([['face', face]]), NOW), 'second')
    expect(before).toMatchObject({ state: 'now', to: wet + 54 * 25_000 + 10 * MIN })
    const moved = { ...face, signs: { ...face.signs, gloss: { ...about(25), actual: 18 * 60 } } }
    expect(of(workOutJob(told, new Map([['face', moved]]), NOW), 'second').to).toBe(wet + 28 * MIN)
    // Before anything is begun: so long after the face coat, if that is mixed at once.
    const fresh = workOutJob(shell, poursOf(shell), NOW), face0 = of(fresh, 'face')
    expect(of(fresh, 'second').to).toBeUndefined()
    expect(of(fresh, 'second').within).toBe(face0.from + 54 * 25_000 + 10 * MIN)
    // Too late: it says by how much and what helps, and the rest still has its times.
    const late = workOutJob(told, new Map([['face', moved]]), wet + 40 * MIN)
    expect(of(late, 'second')).toMatchObject({ state: 'missed', late: { by: 12 * MIN, help: 'score-and-wet' } })
    expect(of(late, 'third').from).toBeGreaterThan(of(late, 'second').from)
    expect(late.next).toBe('second')
    // Begun late, it is done, and the record says so.
    const begun = told.map(done('second', wet + 40 * MIN, wet + 52 * MIN))
    expect(of(workOutJob(begun, new Map([['face', moved]]), wet + 53 * MIN), 'second'))
      .toMatchObject({ state: 'done', late: { by: 12 * MIN, help: 'score-and-wet' } })
  })
  it('what comes by itself waits for nobody, and is done when its time is over', () => {
    const steps: JobStep[] = [
      { ...hand('a', 5), began: NOW, ended: NOW + 5 * MIN }, { ...hand('w', 30, after('a', 0)), kind: 'until' },
      hand('b', 1, after('w', 0)),
    ]
    const at = (m: number) => workOutJob(steps, new Map(), NOW + m * MIN).steps.map(s => s.state)
    expect(at(6)).toEqual(['done', 'waiting', 'ahead'])
    expect(at(36)).toEqual(['done', 'done', 'now'])
  })
  it('steps that wait for each other, and windows that no time can keep, are named', () => {
    expect(workOutJob([hand('a', 1, after('b', 0)), hand('b', 1, after('a', 0))], new Map(), NOW).problem)
      .toMatchObject({ code: 'loop', steps: expect.arrayContaining(['a', 'b']) })
    const tight = [hand('a', 10), hand('b', 20, after('a', 0)), hand('c', 5, after('b', 0), after('a', 0, 12))]
    expect(workOutJob(tight, new Map(), NOW).problem).toMatchObject({ code: 'no-room', by: 8 })
  })
  it('against a search of every minute, on drawn chains: the first and last moment of each step', () => {
    const room = fc.option(fc.integer({ min: 0, max: 8 }), { nil: undefined })
    const links = fc.record({ least: fc.integer({ min: 0, max: 6 }), room })
    const drawnSteps = fc.array(
      fc.record({ minutes: fc.integer({ min: 1, max: 4 }), link: links, far: links }), { minLength: 2, maxLength: 4 },
    )
    const lag = (n: number, { least, room: more }: { least: number, room: number | undefined }, beyond = 0) =>
      n < 0 ? [] : [after(String(n), least, more === undefined ? undefined : least + more + beyond)]
    fc.assert(fc.property(drawnSteps, (drawn) => {
      const steps = drawn.map(({ minutes, link, far }, n) =>
        hand(String(n), minutes, ...lag(n - 1, link), ...lag(n - 2, far, 12)))
      const most = 60, found = steps.map(() => ({ first: Infinity, last: -Infinity }))
      // Every order of beginnings, minute by minute, that keeps all bounds.
      const place = (n: number, at: number[]): void => {
        if (n === steps.length) return at.forEach((t, i) => {
          found[i]!.first = Math.min(found[i]!.first, t)
          found[i]!.last = Math.max(found[i]!.last, t)
        })
        for (let t = 0; t <= (n === 0 ? 0 : most); t++) {
          const keeps = steps[n]!.after.every((l) => {
            const lag = t - at[Number(l.step)]! - steps[Number(l.step)]!.minutes
            return lag >= (l.least ?? 0) && lag <= (l.most ?? Infinity)
          })
          if (keeps) place(n + 1, [...at, t])
        }
      }
      place(0, [])
      // The first one is done: how long the others may wait is counted from it.
      const told = steps.map((s, i) => i > 0 ? s : { ...s, began: NOW, ended: NOW + s.minutes * MIN })
      const times = workOutJob(told, new Map(), NOW)
      if (found[0]!.first === Infinity) return times.problem !== undefined
      return times.steps.every((s, i) => (s.from - NOW) / MIN === found[i]!.first
        && (s.to === undefined || (s.to - NOW) / MIN === found[i]!.last))
    }), { numRuns: 60 })
  })
})
