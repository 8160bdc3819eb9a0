import { setResponseHeaders } from 'h3'
import { comingMoments } from '~core/pour/coming'
import { workshopTime } from '~shared/clock'
import { tokenSchema } from '~shared/link'
import { z } from '~shared/zod'
import { workshopOfLink } from '../../db/links'
import { castRows } from '../../db/pours'
import { within } from '../../db/scope'
import { calendarOf } from '../../formats/calendar'
import { found, openRoute } from '../../route'

const file = z.string().transform(name => name.replace(/\.ics$/, '')).pipe(tokenSchema)

/** Moments to come, to whoever has the link: subscribed to by a calendar. */
export default openRoute({ params: z.object({ file }) }, async ({ event, db, params }) => {
  const workshop = found(await workshopOfLink(db, params.file, 'calendar'), 'This link was taken back. Ask for a new one.')
  const now = workshopTime(workshop.clock, Date.now())
  setResponseHeaders(event, { 'content-type': 'text/calendar; charset=utf-8', 'cache-control': 'private, max-age=300', 'referrer-policy': 'no-referrer' })
  return calendarOf(workshop.name, comingMoments(await castRows(within(db, workshop.id), now), now), now)
})
