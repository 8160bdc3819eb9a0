import { createEventStream } from 'h3'
import { route } from '../route'
import { subscribe } from '../live/hub'

const HEARTBEAT_MS = 20_000

/** The stream of what changed, ids only. The first message says where the workshop's counter stands, so that a browser that was away knows to catch up. */
export default route('viewer', {}, async ({ event, person }) => {
  const stream = createEventStream(event)
  const stop = await subscribe(person.workshopId, message => void stream.push(JSON.stringify(message)))
  const heartbeat = setInterval(() => void stream.push({ event: 'beat', data: '' }), HEARTBEAT_MS)
  stream.onClosed(async () => {
    clearInterval(heartbeat)
    stop()
    await stream.close()
  })
  void stream.push({ event: 'hello', data: String(person.eventSeq) })
  return stream.send()
})
