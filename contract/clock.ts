import { z } from './zod'

/**
 * How the workshop's clock runs: real time, or in the demo a time of its own that can run faster. Milliseconds since
 * 1970.
 */
export interface WorkshopClock { readonly realAnchor: number, readonly simAnchor: number, readonly rate: number }

export const REAL_TIME: WorkshopClock = { realAnchor: 0, simAnchor: 0, rate: 1 }

/** The workshop's now for a real now. */
export function workshopTime(clock: WorkshopClock, realNow: number): number {
  return clock.simAnchor + (realNow - clock.realAnchor) * clock.rate
}

/** What the demo may ask of its clock: another pace, a jump ahead, or back to real time. */
export const clockChangeSchema = z.object({
  rate: z.number().min(1, 'The clock runs at least at real pace.').max(600, 'The clock runs at most 600 times as fast.')
    .optional(),
  jump: z.number().min(0, 'The clock only goes forward.').max(30 * 86_400, 'Jump at most 30 days at a time.')
    .optional(),
})
export type ClockChange = z.infer<typeof clockChangeSchema>

/** Applies a change without any step in time other than the jump asked for (seconds). */
export function changedClock(clock: WorkshopClock, change: ClockChange, realNow: number): WorkshopClock {
  return {
    realAnchor: realNow,
    simAnchor: workshopTime(clock, realNow) + (change.jump ?? 0) * 1000,
    rate: change.rate ?? clock.rate,
  }
}
