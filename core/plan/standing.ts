import { usualStanding } from '../drying/expected'
import { sunAtWork } from '../drying/sun'
import type { Standing } from '../drying/places'
import { settingPlace } from '../setting/body'
import type { SettingInput } from '../setting/setting-mix'
import type { Plan } from './types'

/**
 * Where the casts of a plan will stand to dry: where it says, else on a rack in the room.
 * @param day of the year, for the height of the sun @param room as it was measured at the bench, where it was
 */
export function plannedStanding({ dries, roomTemperature }: Plan, day?: number, room = roomTemperature): Standing {
  return { ...dries ?? usualStanding(room), day }
}

/** What the place where a plan's casts set means to their heat. */
export function settingSurroundings({ sets }: Plan): Pick<SettingInput, 'behind' | 'humidity' | 'sun'> {
  if (!sets) return {}
  const { behind, open } = settingPlace(sets.place)
  return {
    // A room is what is taken where nothing is said; a print has its ground then.
    ...sets.place !== 'room' && { behind },
    humidity: sets.humidity,
    ...open && { sun: sunAtWork(sets.sky ?? 'half') },
  }
}
