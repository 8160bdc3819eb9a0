import ical from 'ical-generator'
import type { Coming } from '~core/formats/coming'

/**
 * Moments to come as an iCalendar file (RFC 5545). Their ids stay the same from one asking to the next, so that a
 * calendar moves them rather than adding.
 */
export function calendarOf(workshop: string, coming: readonly Coming[], made: number): string {
  const calendar = ical({
    name: `${workshop}: moments of casts`,
    prodId: { company: 'Nine Ripples', product: 'Nine Ripples', language: 'EN' },
    ttl: 900,
  })
  for (const c of coming)
    calendar.createEvent({
      id: `${c.id}@nine-ripples`,
      start: new Date(c.from),
      end: new Date(c.to),
      stamp: new Date(made),
      summary: c.title,
      description: c.note,
    })
  return calendar.toString()
}
