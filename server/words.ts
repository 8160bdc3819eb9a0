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
  'imports-under-way': { status: 409, sentence: 'Another file is being brought in just now. Wait until that has ended.' },
  'model-not-whole': { status: 409, sentence: 'The model did not arrive whole. Send it again.' },
  'too-many-links': { status: 409, sentence: 'Fifty links are enough. Take back the ones nobody uses.' },
  'no-photo-reader': {
    status: 503,
    sentence: 'The part of this server that reads photos is missing, so none can be kept just now. The photo waits here until whoever looks after the server has installed it again.',
  },
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
  'database-busy': {
    status: 503,
    sentence: 'The workshop’s records are busy just now, and this was given up. Nothing was changed; it is tried again by itself.',
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
  'workshop-moving': {
    status: 503,
    sentence: 'This workshop’s records are being moved to another machine just now. Nothing is lost; it goes on by itself in a moment.',
  },
  'too-many-tries': { status: 429, sentence: 'Too many tries. Wait a moment and try again.' },
  'busy': { status: 503, sentence: 'Too many are at this door just now. Wait a moment and try again.' },
  'common-password': {
    status: 422,
    sentence: 'Many people have that password, and it is the first to be tried. Put a few unlikely words together.',
  },
  'own-name': {
    status: 422,
    sentence: 'That is little more than a name of yours. Put a few unlikely words together.',
  },
  'no-account': { status: 409, sentence: 'This is only a name in the record: nobody signs in with it.' },
  'belongs-elsewhere': {
    status: 409,
    sentence: 'They belong to another workshop too, so this one cannot open their account. They can change the password themselves, or bin/owner can, on the server.',
  },
  'too-many-invitations': { status: 409, sentence: 'Fifty invitations are out. Take back the ones nobody uses.' },
  'too-many-passkeys': { status: 409, sentence: 'Twenty passkeys are enough. Remove the ones you no longer use.' },
  'passkey-known': { status: 409, sentence: 'This passkey is known here already.' },
  'passkey-needs-name': {
    status: 409,
    sentence: 'Passkeys work only where the server’s address is a name. Open it by its name and try again.',
  },
  'passkey-not-made': { status: 422, sentence: 'That passkey could not be read. Try making it again.' },
  'passkey-not-known': {
    status: 401,
    sentence: 'This passkey opens nothing here any more. Sign in with your password instead.',
  },
  'no-room': { status: 409, sentence: 'This workshop keeps no more of these. Take some away first.' },
  'too-many-devices': { status: 409, sentence: 'Twenty devices are enough. Take out the ones nobody uses.' },
  'one-workshop': { status: 409, sentence: 'This server keeps one workshop. Start it with --many to open others.' },
  'too-many-streams': { status: 503, sentence: 'As many pages of this workshop are open as the server can tell of changes. Close some of them.' },
  'too-many-classes': { status: 409, sentence: 'Thirty classes are open. End those that are over.' },
  'class-full': { status: 409, sentence: 'This class has no more seats. Ask your teacher.' },
  'class-shut': { status: 403, sentence: 'Nobody is let in any more just now. Ask your teacher to open the door.' },
  'not-their-class': { status: 403, sentence: 'Only its teacher or an owner can lead this class.' },
  'no-kit': { status: 409, sentence: 'No kit was chosen for this class yet.' },
  'no-such-step': { status: 422, sentence: 'This kit has no such step.' },
  'other-task': { status: 409, sentence: 'The class has gone on to something else meanwhile.' },
  'last-owner': { status: 409, sentence: 'A workshop needs an owner: make someone else one first.' },
} as const satisfies Readonly<Record<string, { readonly status: number, readonly sentence: string }>>

/** That a workshop keeps no more of something. @param most bytes */
export function keptWords(what: 'photos' | 'models', most: number): string {
  return `This workshop keeps ${most / 1e9} GB of ${what}, and that is reached. Take some away first.`
}

/** How long whoever guessed too often has to wait. */
export function waitWords(seconds: number): string {
  const wait = seconds <= 60 ? `${Math.ceil(seconds)} s` : `${Math.ceil(seconds / 60)} min`
  return `Too many tries. Wait ${wait} and try again.`
}

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
