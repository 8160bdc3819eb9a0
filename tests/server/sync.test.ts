import { randomUUID } from 'node:crypto'
import pg from 'pg'
import fc from 'fast-check'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { METRIC } from '../../core/units/units'
import type { Happening, PourEvent } from '../../core/pour/events'
import { freezeRun, stepsOf, type FrozenRun } from '../../core/plan/run'
import { summariseCasts, summarisePour } from '../../core/pour/projection'
import { foldPour } from '../../core/pour/fold'
import { SIGNS } from '../../core/plan/stages'
import { REAL_TIME } from '../../contract/clock'
import type { SentEvent } from '../../contract/pour'
import { chance } from '../../demo/random'
import { BUCKETS, makeIds, MOULDS, planOf, WISHES } from '../../demo/saltmarsh'
import { CHANNEL } from '../../server/store/announce'
import { saveItem, worldOf } from '../../server/store/library'
import type { Db } from '../../server/store/open'
import { castRows, pourRows, pourWithEvents } from '../../server/store/pours'
import { recordEvents, startPour } from '../../server/store/recording'
import { within, type Scope } from '../../server/store/scope'
import { createWithOwner } from '../../server/store/workshops'
import { campaign } from '../campaign'
import { freshDatabase } from './fresh'

/**
 * Many devices telling of one pour: cut off, late, out of order, repeated, with clocks that are off; on a real
 * database.
 */
let db: Db, url: string, close: () => Promise<void>, scope: Scope, run: FrozenRun
const T0 = 1_800_000_000_000
const ids = makeIds(chance(9))

beforeAll(async () => {
  ;({ db, url, close } = await freshDatabase())
  scope = within(
    db,
    (await createWithOwner(db, { name: 'Sync', units: METRIC, clock: REAL_TIME, demo: false }, {
      name: 'S',
      email: 'sync@example.org',
      passwordHash: 'x',
    })).workshopId,
  )
  await saveItem(scope, 'mould', ids.moulds.lantern, { ...MOULDS.lantern }, 0)
  await saveItem(scope, 'bucket', ids.buckets.bowl, { ...BUCKETS.bowl }, 0)
  const plan = { ...planOf(ids, WISHES.lanterns), bag: undefined }
  const frozen = freezeRun(plan, await worldOf(scope, plan, Date.now()))
  if (!frozen.ok) throw new Error('refused')
  run = frozen.run
})
afterAll(() => close())

/** What a device knows: its outbox, what it has from the server, its counter, and how far its clock is off (ms). */
class Device {
  readonly outbox: SentEvent[] = []
  known: readonly PourEvent[] = []
  private seq = 0
  constructor(readonly name: string, readonly skew: number, readonly pour: string) {}
  tell(at: number, happening: Happening, batch: number, lateBy: number): SentEvent {
    const event = {
      ...happening,
      id: randomUUID(),
      version: this.skew === 3_000 || this.skew === 400_000 ? 1 : 2,
      batch,
      happenedAt: T0 + at - lateBy + this.skew,
      recordedAt: T0 + at + this.skew,
      device: this.name,
      deviceSeq: ++this.seq,
    } as SentEvent
    this.outbox.push(event)
    return event
  }

  /**
   * Sends some of the outbox in any order; the answer may be lost on the way, and then all of it is sent again later.
   */
  async send(order: (n: number) => number[], lost: boolean): Promise<void> {
    if (this.outbox.length === 0) return
    const sent = order(this.outbox.length).map(i => this.outbox[i]!)
    const answer = (await recordEvents(scope, this.pour, sent, 'someone', this.skew))!
    if (lost) return
    this.known = answer.events
    for (const e of sent) this.outbox.splice(this.outbox.indexOf(e), 1)
  }

  state() {
    return foldPour(run, [
      ...this.known,
      ...this.outbox.map(e => ({ ...e, pour: this.pour, actor: 'someone' }) as PourEvent),
    ])
  }
}

const histories = campaign(500)
const step = fc.record({
  device: fc.nat(3),
  what: fc.constantFrom('stage', 'mark', 'weigh', 'fill', 'undo', 'open', 'foresee', 'send', 'lose', 'repeat', 'fetch'),
  pick: fc.nat(1000),
  lateBy: fc.constantFrom(0, 0, 0, 60_000, 600_000),
  seed: fc.nat(1e6),
})

describe('many devices at one pour', () => {
  it(
    'end with the same state, every entry once, and projections that are the fold, whatever the network did',
    async () => {
      await fc.assert(
        fc.asyncProperty(fc.array(step, { minLength: 20, maxLength: 70 }), async (steps) => {
          const pour = randomUUID()
          await startPour(scope, {
            id: pour,
            run,
            first: [
              {
                id: randomUUID(),
                kind: 'stage',
                data: { stage: 'ready' },
                version: 1,
                batch: 0,
                happenedAt: T0,
                recordedAt: T0,
                device: 'd0',
                deviceSeq: 0,
              } as SentEvent,
            ],
            actor: 'someone',
          })
          const devices = [0, 3_000, -45_000, 400_000].map((skew, i) => new Device(`d${i}`, skew, pour))
          const told = new Set<string>(), everything: SentEvent[] = [], all = stepsOf(run)
          let at = 0
          for (const s of steps) {
            const d = devices[s.device]!
            at += 15_000
            const cast = `1.${1 + s.pick % Math.max(1, run.batches[0]!.fills.reduce((n, f) => n + f.copies, 0))}`
            const tell = (h: Happening, batch = 0) => {
              const e = d.tell(at, h, batch, s.lateBy)
              told.add(e.id)
              everything.push(e)
            }
            const shuffled = (n: number) => {
              const dice = chance(s.seed)
              return Array.from({ length: n }, (_, i) => ({ i, r: dice.next() })).sort((a, b) => a.r - b.r).map(x =>
                x.i,
              ).slice(0, Math.max(1, Math.ceil(n * dice.next())))
            }
            switch (s.what) {
              case 'stage':
                {
                  // Devices of both versions: one says from where it was told, the other does not.
                  const { stage, batch } = all[s.pick % all.length]!, at = d.state().batches[batch]?.step
                  const from = at === undefined ? 'unbegun' : all[at]!.stage
                  tell({ kind: 'stage', data: s.device % 2 === 0 ? { stage, from } : { stage } }, batch)
                }
                break
              case 'mark':
                tell({ kind: 'mark', data: { sign: SIGNS[s.pick % SIGNS.length]!.id } })
                break
              case 'weigh':
                tell({
                  kind: 'weighed',
                  data: { what: s.pick % 2 ? 'water' : 'powder', mass: 0.3 + s.pick / 1000, how: 'scale' },
                })
                break
              case 'fill':
                tell({ kind: 'filled', data: { cast } })
                break
              case 'open':
                tell({ kind: 'opened', data: { cast } })
                break
              case 'foresee':
                tell({ kind: 'foreseen', data: { open: { [ids.moulds.lantern]: { from: 1000 + s.pick, to: 5000 } } } })
                break
              case 'undo':
                if (everything.length)
                  tell({ kind: 'undo', data: { event: everything[s.pick % everything.length]!.id } })
                break
              case 'send':
                await d.send(shuffled, false)
                break
              case 'lose':
                await d.send(shuffled, true)
                break
              case 'repeat':
                if (everything.length)
                  await recordEvents(
                    scope,
                    pour,
                    everything.filter(e => e.device === d.name && !d.outbox.includes(e)).slice(-3).concat(
                      d.outbox.slice(0, 1),
                    ),
                    'someone',
                  )
                break
              case 'fetch':
                d.known = (await pourWithEvents(scope, pour))!.events
                break
            }
          }
          for (const d of devices)
            while (d.outbox.length)
              await d.send(n =>
                Array.from({ length: n }, (_, i) => i), false)
          const { events } = (await pourWithEvents(scope, pour))!
          for (const d of devices)
            d.known = events
          expect(
            events.map(e => e.id).sort(),
          ).toEqual([...told, events.find(e => e.deviceSeq === 0)!.id].sort())
          const state = foldPour(run, events)
          for (const d of devices) expect(d.state()).toEqual(state)
          // The order in which they came does not matter.
          expect(foldPour(run, [...events].reverse())).toEqual(state)
          const plain = (x: unknown) => JSON.parse(JSON.stringify(x)) as unknown
          expect(plain((await pourRows(scope)).find(r => r.id === pour)!.summary)).toEqual(
            plain(summarisePour(run, state)),
          )
          const shown = (await castRows(scope, 0)).filter(r => r.pour === pour).map(r => r.cast).sort((a, b) =>
            a.id < b.id ? -1 : 1,
          )
          expect(plain(shown)).toEqual(plain([...summariseCasts(run, state)].sort((a, b) => a.id < b.id ? -1 : 1)))
        }),
        { seed: histories.seed, numRuns: histories.of },
      )
    },
    60_000 + histories.of * 3000,
  )
})

describe('what is announced', () => {
  it('says that moulds and bags are told otherwise when powder went in or a forecast was learnt, and else not', async () => {
    const ear = new pg.Client({ connectionString: url }), heard: string[] = []
    await ear.connect()
    ear.on('notification', n => heard.push((JSON.parse(n.payload!) as { message: { what: string } }).message.what))
    await ear.query(`listen ${CHANNEL}`)
    const pour = randomUUID(), d = new Device('d0', 0, pour)
    const begin = { ...d.tell(0, { kind: 'stage', data: { stage: 'ready' } }, 0, 0) }
    await startPour(scope, { id: pour, run, first: [begin], actor: 'someone' })
    /** What is announced of one entry. */
    const said = async (at: number, happening: Happening) => {
      await ear.query('select 1')
      heard.length = 0
      await recordEvents(scope, pour, [d.tell(at, happening, 0, 0)], 'someone')
      await ear.query('select 1')
      return [...heard]
    }
    expect(await said(1000, { kind: 'stage', data: { stage: 'weigh' } })).toEqual(['pour'])
    expect(await said(2000, { kind: 'weighed', data: { what: 'powder', mass: 0.5, how: 'scale' } })).toEqual(['pour'])
    // Powder is used once it is wet.
    expect(await said(3000, { kind: 'stage', data: { stage: 'sift' } })).toEqual(['pour', 'library'])
    expect(await said(3500, { kind: 'stage', data: { stage: 'soak' } })).toEqual(['pour'])
    const learnt = { open: {}, taught: { mean: -0.3, sd: 0.1 } }
    expect(await said(4000, { kind: 'foreseen', data: learnt })).toEqual(['pour', 'library'])
    await ear.end()
  })
})
