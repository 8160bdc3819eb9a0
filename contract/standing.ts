import { z } from './zod'
import { TOO_HOT } from '~core/drying/cast'
import { PLACES, RETIRED_PLACES, SKIES, WINDS, type PlaceId, type Standing } from '~core/drying/places'

/** Where a cast stands and in what air, as it crosses a boundary: in an entry, in a plan, in an answer. */

export const placeId = z.enum(PLACES.map(p => p.id) as [PlaceId, ...PlaceId[]])
export const skyId = z.enum(SKIES)
export const humidity = z.number('This must be a number.')
  .min(0.02, 'Air is never that dry.').max(1, 'Air holds no more than 100 %.')
const air = z.object({
  celsius: z.number('This must be a number.').min(-20, 'Nothing dries in that cold.').max(
    TOO_HOT,
    `Not above ${TOO_HOT} °C: plaster begins to lose the water it is made of.`,
  ),
  humidity,
})
const weather = z.object({
  swing: z.number().min(0, 'The day is warmer than the night.').max(20, 'No day is 40 degrees warmer than its night.'),
  wind: z.enum(WINDS),
  sky: skyId,
  latitude: z.number().min(-70, 'Further than 70° the sun does not rise every day.')
    .max(70, 'Further than 70° the sun does not rise every day.').optional(),
})
export const standingSchema = z.object({
  place: placeId, air, weather: weather.optional(),
}) satisfies z.ZodType<Standing>

/** In an entry it may still have the name that its place had once: entries are never rewritten. */
export const toldStanding = standingSchema.extend({
  place: z.enum([...PLACES.map(p => p.id), ...RETIRED_PLACES] as [PlaceId, ...PlaceId[]]),
})
