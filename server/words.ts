import { MOST_ENTRIES } from '~contract/limits'

/** What the server answers when it will not do something: HTTP status and sentence of each refusal. */
export const ANSWERS = {
  'stale-item': {
    status: 409,
    sentence: 'Someone else changed this meanwhile. Look at their version, then change it again.',
  },
  'stale-plan': {
    status: 409,
    sentence: 'This plan was changed on another device meanwhile. Open it again to see that version.',
  },
  'entries': { status: 422, sentence: 'These entries do not fit this pour.' },
  'other-shape': {
    status: 409,
    sentence: 'This pour was begun with another version, which divided it into other batches. Open the page anew and send it again.',
  },
  'row': { status: 422, sentence: 'This row cannot be taken in.' },
  'archive': { status: 422, sentence: 'This is not a whole archive; nothing was taken in.' },
  'model-not-whole': { status: 409, sentence: 'The model did not arrive whole. Send it again.' },
  'too-many-links': { status: 409, sentence: 'Fifty links are enough. Take back the ones nobody uses.' },
  'too-many-photos': { status: 409, sentence: 'This keeps no more photos. Take one away first.' },
  'owned': { status: 409, sentence: 'This workshop already has its owner. Sign in, or ask them to add you.' },
  'email-taken': { status: 409, sentence: 'Someone already signs in with this address.' },
  'newer-record': {
    status: 409,
    sentence: 'This was written by a newer version than this one. It is kept as it is; bring this server up to date to read it.',
  },
  'broken-record': { status: 409, sentence: 'This is kept, but it cannot be read: no version wrote it like this.' },
  'database-away': {
    status: 503,
    sentence: 'The workshop’s records cannot be reached just now. Nothing is lost; it is tried again by itself.',
  },
  // RFC 4918, 507 Insufficient Storage.
  'database-full': {
    status: 507,
    sentence: 'The workshop’s server has no room left on its disk. What you entered waits here until there is some.',
  },
  'database-newer': {
    status: 503,
    sentence: 'The workshop’s records were written by a newer version. Bring this server up to date; what you entered waits here.',
  },
  'last-owner': { status: 409, sentence: 'A workshop needs an owner: make someone else one first.' },
} as const satisfies Readonly<Record<string, { readonly status: number, readonly sentence: string }>>

/** Why one entry is not taken, with what its sentence needs. */
export type NotTaken
  = | { readonly code: 'unreadable', readonly why: string }
    | { readonly code: 'batch', readonly batches: number, readonly named: number }
    | { readonly code: 'cast', readonly named: string }
    | { readonly code: 'elsewhere' | 'full' }

/** What is said of an entry that is not taken. */
export function notTakenWords(fault: NotTaken): string {
  switch (fault.code) {
    case 'unreadable':
      return fault.why
    case 'batch':
      return `This pour has ${fault.batches} ${fault.batches === 1 ? 'batch' : 'batches'}; the entry names batch ${
        fault.named + 1
      }.`
    case 'cast':
      return `This pour has no cast ${fault.named}.`
    case 'full':
      return `This pour has ${MOST_ENTRIES.toLocaleString('en-GB').replace(',', ' ')} entries and takes no more. Begin another.`
    case 'elsewhere':
      return 'An entry with this id already belongs to another pour.'
  }
}
