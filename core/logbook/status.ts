import type { PourStatus } from '../pour/fold'

/** States as the logbook tells them apart: readying and pouring are both on the bench. */
export type StatusGroup = 'bench' | 'setting' | 'drying' | 'finished' | 'abandoned'
export const STATUS_GROUPS: Readonly<Record<PourStatus, StatusGroup>> = {
  readying: 'bench',
  pouring: 'bench',
  setting: 'setting',
  drying: 'drying',
  finished: 'finished',
  abandoned: 'abandoned',
}
