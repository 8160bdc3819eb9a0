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
  'pour-here': { status: 409, sentence: 'This pour cannot be started here.' },
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
  'last-owner': { status: 409, sentence: 'A workshop needs an owner: make someone else one first.' },
} as const satisfies Readonly<Record<string, { readonly status: number, readonly sentence: string }>>
