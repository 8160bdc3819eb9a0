import { getRequestHeader } from 'h3'
import { MOST_READINGS_PER_S } from '~contract/devices'
import { takeGuesses } from '../auth/guessing'
import { placeOf } from '../auth/place'
import { announceReading } from '../store/announce'
import { deviceOf, noteHeard } from '../store/devices'
import { LastUsed } from '../last-used'
import { DONE, refuse, serve } from '../route'

/** How many lines each device said in the second that began then. */
const said = new LastUsed<{ readonly from: number, count: number }>(1000)

/** @throws a 429 when it says more than anybody could use */
function keepPace(device: string): void {
  const now = Date.now(), second = said.get(device)
  if (!second || now - second.from >= 1000) return said.set(device, { from: now, count: 1 })
  if (++second.count > MOST_READINGS_PER_S) throw refuse(429, `A device says at most ${MOST_READINGS_PER_S} lines a second.`)
}

/** What a device measures, handed on to the benches that listen and kept nowhere. */
export default serve('POST readings', async ({ event, db, body }) => {
  const token = /^Bearer ([\w-]{43})$/.exec(getRequestHeader(event, 'authorization') ?? '')?.[1]
  const device = token === undefined ? undefined : await deviceOf(db, token)
  if (!device) {
    await takeGuesses(db, [{ kind: 'link', about: placeOf(event) }])
    throw refuse(401, 'This is no device of a workshop here, or it was taken out. Bring it in under Workshop.')
  }
  if (body.device !== device.kind) throw refuse(422, `This device was brought in as a ${device.kind}.`, 'device')
  keepPace(device.id)
  await announceReading(db, { workshop: device.workshopId, device: device.id, line: body })
  await noteHeard(db, device.workshopId, device.id)
  return DONE
})
