import { setResponseHeaders } from 'h3'
import { allComing } from '../formats/all-coming'
import { calendarOf } from '../formats/calendar'
import { serve } from '../route'

/** Moments to come as a file, once. */
export default serve('GET calendar', async ({ event, scope, person, now }) => {
  setResponseHeaders(event, {
    'content-type': 'text/calendar; charset=utf-8',
    'content-disposition': 'attachment; filename="moments.ics"',
  })
  return calendarOf(person.workshopName, await allComing(scope, now), now)
})
