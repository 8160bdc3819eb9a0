import { setResponseHeaders } from 'h3'
import { comingMoments } from '~core/formats/coming'
import { workshopTime } from '~contract/clock'
import { workshopOfLink } from '../../store/links'
import { castRows } from '../../store/pours'
import { within } from '../../store/scope'
import { calendarOf } from '../../formats/calendar'
import { found, serve } from '../../route'

/** Moments to come, to whoever has the link: subscribed to by a calendar. */
export default serve('GET calendar/:file', async ({ event, db, params }) => {
  const workshop = found(
    await workshopOfLink(db, params.file, 'calendar'),
    'This link was taken back. Ask for a new one.',
  )
  const now = workshopTime(workshop.clock, Date.now())
  setResponseHeaders(event, {
    'content-type': 'text/calendar; charset=utf-8',
    'cache-control': 'private, max-age=300',
    'referrer-policy': 'no-referrer',
  })
  return calendarOf(workshop.name, comingMoments(await castRows(within(db, workshop.id), now), now), now)
})
