import { setResponseHeaders } from 'h3'
import { workshopTime } from '~contract/clock'
import { heldLink } from '../../auth/tickets'
import { within } from '../../store/scope'
import { allComing } from '../../formats/all-coming'
import { calendarOf } from '../../formats/calendar'
import { serve } from '../../route'

/** Moments to come, to whoever has the link: subscribed to by a calendar. */
export default serve('GET calendar/:file', async ({ event, db, params }) => {
  const workshop = await heldLink(event, db, params.file, 'calendar')
  const now = workshopTime(workshop.clock, Date.now())
  setResponseHeaders(event, {
    'content-type': 'text/calendar; charset=utf-8',
    'cache-control': 'private, max-age=300',
    'referrer-policy': 'no-referrer',
  })
  return calendarOf(workshop.name, await allComing(within(db, workshop.id, workshop), now), now)
})
