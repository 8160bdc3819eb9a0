import { randomUUID } from 'node:crypto'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { chance } from '../demo/random'
import { BAGS, BUCKETS, makeIds, MOULDS, planOf, WISHES } from '../demo/saltmarsh'
import { ownerSchema, personChangeSchema, signInSchema } from './account'
import { changedClock, clockChangeSchema, REAL_TIME, workshopTime } from './clock'
import { bagSchema, bucketSchema, mouldSchema } from './library'
import { planSchema } from './plan'
import { sendEventsSchema, sentEventSchema } from './pour'

const ids = makeIds(chance(2))
const sentence = (result: { success: boolean, error?: { issues: readonly { message: string }[] } }) =>
  result.error?.issues[0]?.message

describe('the workshop’s clock', () => {
  it('runs at its pace and changes without a step', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            wait: fc.integer({ min: 0, max: 1e6 }),
            rate: fc.integer({ min: 1, max: 600 }),
            jump: fc.integer({ min: 0, max: 86_400 }),
          }),
          { maxLength: 8 },
        ),
        (changes) => {
          let clock = REAL_TIME, real = 1_800_000_000_000
          for (const { wait, rate, jump } of changes) {
            real += wait
            const before = workshopTime(clock, real)
            clock = changedClock(clock, { rate, jump }, real)
            expect(workshopTime(clock, real)).toBe(before + jump * 1000)
            expect(workshopTime(clock, real + 1000)).toBe(before + jump * 1000 + rate * 1000)
          }
        },
      ),
    )
  })

  it('goes forward only, within reason', () => {
    expect(sentence(clockChangeSchema.safeParse({ jump: -1 }))).toBe('The clock only goes forward.')
    expect(sentence(clockChangeSchema.safeParse({ rate: 0 }))).toBe('The clock runs at least at real pace.')
    expect(clockChangeSchema.safeParse({}).success).toBe(true)
  })
})

describe('what crosses the boundary', () => {
  it('everything in the demo does', () => {
    for (const mould of Object.values(MOULDS)) expect(mouldSchema.safeParse(mould).success).toBe(true)
    for (const bucket of Object.values(BUCKETS)) expect(bucketSchema.safeParse(bucket).success).toBe(true)
    for (const bag of Object.values(BAGS)) expect(bagSchema.safeParse(bag).success).toBe(true)
    for (const wish of Object.values(WISHES)) expect(planSchema.safeParse(planOf(ids, wish)).success).toBe(true)
  })

  it.each<[string, object, string]>([
    ['a count of half a cast', { fills: [{ mould: ids.moulds.tile, count: 1.5 }] }, 'Whole casts only.'],
    ['a ratio of nothing', { ratio: 0 }, 'That is too little water for any gypsum.'],
    ['a ratio that is infinite', { ratio: Infinity }, 'This must be a number.'],
    ['losses below nothing', { losses: -0.1 }, 'Losses cannot be negative.'],
    ['a long name', { name: 'x'.repeat(121) }, 'Keep the name under 120 characters.'],
  ])('%s is refused in words', (_, change, words) => {
    expect(sentence(planSchema.safeParse({ ...planOf(ids, WISHES.tiles), ...change }))).toBe(words)
  })

  it('a mould’s range must hold its volume, a bag’s bulk density must be a range', () => {
    expect(sentence(mouldSchema.safeParse({ ...MOULDS.tile, volume: { value: 1e-3, low: 1.1e-3, high: 1.2e-3 } })))
      .toBe('The range of the volume must hold the volume itself.')
    expect(sentence(mouldSchema.safeParse({ ...MOULDS.tile, name: '  ' }))).toBe('Give it a name.')
    expect(sentence(bagSchema.safeParse({ ...BAGS.cement, bulk: { low: 900, high: 800 } }))).toBe(
      'The range needs a lower and a higher end.',
    )
    expect(sentence(bucketSchema.safeParse({ name: 'Flat', vessel: { bottom: 0.1, top: 0.1, height: 0 } }))).toBe(
      'The height has to be more than zero.',
    )
  })

  const event = {
    id: randomUUID(),
    version: 1,
    batch: 0,
    happenedAt: 1_800_000_000_000,
    recordedAt: 1_800_000_000_000,
    device: 'd',
    deviceSeq: 1,
  }
  it.each<[string, object, boolean]>([
    ['a stage', { kind: 'stage', data: { stage: 'sift' } }, true],
    ['a stage that is none', { kind: 'stage', data: { stage: 'admire' } }, false],
    ['a kind that is none', { kind: 'sung', data: {} }, false],
    ['a weight of nothing', { kind: 'weighed', data: { what: 'water', mass: 0, how: 'scale' } }, false],
    ['a cast by its number', { kind: 'opened', data: { cast: '12.3' } }, true],
    ['a cast by another name', { kind: 'opened', data: { cast: '../1' } }, false],
    ['an undo', { kind: 'undo', data: { event: randomUUID() } }, true],
    ['an empty note', { kind: 'note', data: { text: '   ' } }, false],
    ['a defect of its own making', {
      kind: 'judged',
      data: { cast: '1.1', verdict: 'good', defects: ['ugly'], note: '' },
    }, false],
    ['a time before computers', { kind: 'stage', data: { stage: 'sift' }, happenedAt: 5 }, false],
  ])('%s', (_, part, taken) => {
    expect(sentEventSchema.safeParse({ ...event, ...part }).success).toBe(taken)
  })

  it('nothing is sent in empty or endless batches', () => {
    expect(sendEventsSchema.safeParse({ sentAt: event.happenedAt, events: [] }).success).toBe(false)
    expect(
      sendEventsSchema.safeParse({
        sentAt: event.happenedAt,
        events: Array.from({ length: 501 }, () => ({ ...event, kind: 'note', data: { text: 'x' } })),
      }).success,
    ).toBe(false)
  })

  it('addresses are read without regard to case or spaces; roles are the three there are', () => {
    expect(signInSchema.parse({ email: '  Some.One@Example.ORG ', password: 'x' }).email).toBe('some.one@example.org')
    expect(sentence(ownerSchema.safeParse({ workshop: 'W', name: 'N', email: 'nobody', password: 'long enough word' })))
      .toMatch(/^Type an e-mail address/)
    expect(personChangeSchema.safeParse({ role: 'king' }).success).toBe(false)
  })
})
