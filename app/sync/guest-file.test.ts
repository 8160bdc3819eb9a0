import 'fake-indexeddb/auto'
import { describe, expect, it } from 'vitest'
import { castsPerBatch, freezeRun } from '~core/plan/run'
import { thingsOf, workOutDoor } from '~core/door/door'
import { BUCKET_SIZES, KINDS } from '~core/door/kinds'
import { guestAsFile, takeGuestFile } from './guest-file'
import { guestKey } from './guest'
import { changesOf, keepChange } from './kept-changes'
import { begunOf, keep, keepBegun, waitingOf } from './outbox'
import { forgetGuest } from './take-over'

const ME = '5b671a64-40d5-491e-99b0-da01ff1f3341@6b671a64-40d5-491e-99b0-da01ff1f3341'
const id = (n: number) => `7b671a64-40d5-491e-99b0-da01ff1f33${String(n).padStart(2, '0')}`

async function pourAsGuest(guest: string) {
  const things = thingsOf({
    kind: 'tile', amount: { by: 'measures', measures: KINDS.tile.sizes.middle }, count: 2, classId: 'gypsum-cement',
    way: 'weighed',
  }, { plan: 'Two tiles', mould: 'Tile', bucket: size => size, bag: '' }, { mould: id(1), bucket: id(2), bag: id(3) })
  if (typeof things === 'string') throw new Error(things)
  expect(workOutDoor(things).batches).toHaveLength(1)
  const bucket = { id: things.bucket.id, name: '2 l', vessel: BUCKET_SIZES[things.bucket.size] }
  const frozen = freezeRun(things.plan, { moulds: [things.mould], bucket })
  if (!frozen.ok) throw new Error('refused')
  const { run } = frozen, key = guestKey(guest)
  await keepBegun({
    id: id(10), key, run,
    start: {
      id: id(10), planId: id(11), plan: things.plan, startedAt: 1_800_000_000_000, eventId: id(12),
      frozen: { world: run.world, casts: castsPerBatch(run) },
    },
  } as unknown as Parameters<typeof keepBegun>[0])
  await keep(key, id(10), [{
    id: id(13), kind: 'stage', data: { stage: 'weigh', from: 'ready' }, batch: 0, version: 5,
    happenedAt: 1_800_000_060_000, recordedAt: 1_800_000_060_000,
  }] as never)
  const { id: _, ...mould } = things.mould
  await keepChange({
    key, target: { what: 'item', kind: 'mould', id: id(1) }, body: { ...mould, note: '' }, isNew: true, stamp: 's',
  } as unknown as Parameters<typeof keepChange>[0], 0, undefined)
  await keepChange({
    key, target: { what: 'photo', id: id(14), of: { mould: id(1) } }, isNew: true, stamp: 'p',
    picture: { blob: new Blob([Uint8Array.of(1, 2, 250)], { type: 'image/jpeg' }), width: 2, height: 3, caption: 'It' },
  } as unknown as Parameters<typeof keepChange>[0], 0, undefined)
}

describe('a guest’s pour as a file', () => {
  it('goes out whole and comes in as somebody’s own, with its ids and its picture; once more is nothing more', async () => {
    await pourAsGuest('anna')
    const file = JSON.parse(await guestAsFile('anna')) as unknown
    // The other device knows nothing of it.
    await forgetGuest('anna')
    expect(await takeGuestFile(file, ME)).toEqual({ pours: 1, unread: 0 })
    expect((await begunOf(ME)).map(b => [b.id, b.start.person])).toEqual([[id(10), ME.split('@')[0]]])
    expect((await waitingOf(ME)).map(w => [w.event.id, w.event.happenedAt])).toEqual([[id(13), 1_800_000_060_000]])
    const [mould, photo] = await changesOf(ME)
    expect(mould!.body).toMatchObject({ name: 'Tile' })
    expect([photo!.picture!.width, photo!.picture!.blob.type]).toEqual([2, 'image/jpeg'])
    expect([...new Uint8Array(await photo!.picture!.blob.arrayBuffer())]).toEqual([1, 2, 250])
    await takeGuestFile(file, ME)
    expect(await begunOf(ME)).toHaveLength(1)
    expect(await waitingOf(ME)).toHaveLength(1)
  })
  it('what is no such file is none; what cannot be read in one is counted and left out', async () => {
    for (const none of [null, 7, {}, { format: 'nine-ripples-guest', version: 2 }, 'text'])
      expect(await takeGuestFile(none, ME)).toBeUndefined()
    const broken = {
      format: 'nine-ripples-guest', version: 1, waiting: [{ id: 'x' }, 3], begun: [{}], changes: [{ name: 'a' }],
    }
    expect(await takeGuestFile(broken, ME)).toEqual({ pours: 0, unread: 3 })
  })
})
