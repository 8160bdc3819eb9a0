import { format, isSameDay, isSameYear } from 'date-fns'
import type { Instant } from '~core/pour/events'

/** Times of day and days as people say them: `15:10`, `tomorrow 15:10`, `Thu 15:10`, `12 Oct`. */
export function timeOfDay(at: Instant): string {
  return format(at, 'HH:mm')
}

const HOUR = 3_600_000, DAY = 24 * HOUR

export function dayAndTime(at: Instant, now: Instant): string {
  if (isSameDay(at, now)) return timeOfDay(at)
  if (isSameDay(at, now + DAY)) return `tomorrow ${timeOfDay(at)}`
  if (isSameDay(at, now - DAY)) return `yesterday ${timeOfDay(at)}`
  if (Math.abs(at - now) < 6 * DAY) return format(at, 'EEE HH:mm')
  return format(at, isSameYear(at, now) ? 'd MMM' : 'd MMM yyyy')
}

/** `today 15:10`, `12 Oct 15:10`: for records, where the minute matters however long ago it was. */
export function recordTime(at: Instant, now: Instant): string {
  return isSameDay(at, now) ? timeOfDay(at) : format(at, 'd MMM HH:mm')
}

/** A day's night lasts until this hour of the next. */
const DAWN = 5
/** Parts of a day, each until its hour. */
const PARTS = [[DAWN, 'night'], [12, 'morning'], [18, 'afternoon'], [22, 'evening']] as const

/**
 * Parts of a day for what cannot be known to the hour: `Thu afternoon`. Its night belongs to the day before: three
 * o'clock on Friday is Thursday night.
 */
export function roughDay(at: Instant, now: Instant): string {
  const hour = new Date(at).getHours(),
    day = hour < DAWN ? at - DAWN * HOUR : at,
    today = new Date(now).getHours() < DAWN ? now - DAWN * HOUR : now
  const part = PARTS.find(([until]) => hour < until)?.[1] ?? 'night'
  if (isSameDay(day, today)) return part === 'night' ? 'tonight' : `this ${part}`
  if (isSameDay(day, today + DAY)) return `tomorrow ${part}`
  if (Math.abs(day - today) < 6 * DAY) return `${format(day, 'EEE')} ${part}`
  return format(day, 'd MMM')
}

export function roughRange(from: Instant, to: Instant, now: Instant): string {
  const a = roughDay(from, now), b = roughDay(to, now)
  return a === b ? a : `${a} to ${b}`
}

/** `15:10–15:30` on one day, both days named otherwise. */
export function windowOf(from: Instant, to: Instant, now: Instant): string {
  return isSameDay(from, to)
    ? `${dayAndTime(from, now)}–${timeOfDay(to)}`
    : `${dayAndTime(from, now)} – ${dayAndTime(to, now)}`
}

/** A wall clock of minutes and seconds for the bench: it counts, so it may look like one. */
export function counting(seconds: number): string {
  const s = Math.max(0, Math.floor(seconds))
  const h = Math.floor(s / 3600), m = Math.floor(s / 60) % 60
  const two = (x: number) => String(x).padStart(2, '0')
  return h > 0 ? `${h} h ${two(m)}` : `${m} min ${two(s % 60)} s`
}
