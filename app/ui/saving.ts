import type { Saving } from '~/sync/by-itself'

/** How it stands with what saves by itself, behind its name. */
export const SAVING: Record<Saving, string> = {
  saved: 'saved',
  waiting: 'saving …',
  kept: 'kept here, sent when the server is back',
  asked: 'changed elsewhere too',
  failed: 'not saved',
}
