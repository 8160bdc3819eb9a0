import type { GeoPosition } from '~core/units/format'

/** What a camera wrote beside a picture. It is read here and shown; the picture that is kept has none of it. */
export interface PhotoFacts { readonly on?: string, readonly at?: GeoPosition }

const FIELDS = ['DateTimeOriginal', 'GPSLatitude', 'GPSLatitudeRef', 'GPSLongitude', 'GPSLongitudeRef']

/**
 * The day and the place of a photo, as far as its file says; nothing of a file that says neither, or whose words are
 * broken.
 */
export async function photoFacts(file: Blob): Promise<PhotoFacts> {
  try {
    const { parse } = await import('exifr')
    // Not revived: the camera's day is the day where it stood, whatever the zone here.
    const found = await parse(await file.arrayBuffer(), { reviveValues: false, pick: FIELDS }) as {
      readonly DateTimeOriginal?: unknown
      readonly latitude?: unknown
      readonly longitude?: unknown
    } | undefined
    const on = dayOf(/^(\d{4}):(\d\d):(\d\d) /.exec(String(found?.DateTimeOriginal))),
      { latitude, longitude } = found ?? {}
    // A camera that had not found itself yet writes zeros.
    const known = typeof latitude === 'number' && typeof longitude === 'number' && Math.abs(latitude) <= 90
      && Math.abs(longitude) <= 180 && (latitude !== 0 || longitude !== 0)
    return { ...on && { on }, ...known && { at: { latitude, longitude } } }
  }
  catch {
    return {}
  }
}

/** A day of the calendar; a camera whose clock was never set writes zeros. */
function dayOf(match: RegExpExecArray | null): string | undefined {
  const day = match?.slice(1, 4).join('-'), at = Date.parse(day ?? '')
  return !Number.isNaN(at) && new Date(at).toISOString().startsWith(day!) ? day : undefined
}
