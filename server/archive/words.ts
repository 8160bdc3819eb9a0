import { ARCHIVE_VERSION } from '~contract/archive'

/** What is wrong with an archive; nothing of such a one is written. */
export type ArchiveFault
  = | { readonly code: 'not-whole' | 'unpacks-to-more' | 'too-many-files' | 'too-large' | 'not-empty' | 'stranger'
    | 'no-workshop' | 'photo' | 'photos-of-nothing' | 'model' | 'models-of-nothing' | 'not-worked-out' | 'here-already' }
    | { readonly code: 'foreign-file' | 'changed-file' | 'long-line' | 'large-file', readonly name: string }
    | { readonly code: 'newer', readonly version: number }
    | { readonly code: 'unread-line' | 'deep-line', readonly name: string, readonly line: number }
    | { readonly code: 'line', readonly name: string, readonly line: number, readonly path: string }
    | { readonly code: 'thing', readonly kind: string, readonly why: string }
    | { readonly code: 'entry', readonly pour: string, readonly path: string }
    | { readonly code: 'entries', readonly why: string }
    | { readonly code: 'twice', readonly name: string, readonly id: string }

function why(fault: ArchiveFault): string {
  switch (fault.code) {
    case 'not-whole':
      return 'This file is not a whole archive of a workshop. If it was downloaded or copied, do that again'
    case 'unpacks-to-more':
      return 'This file would unpack to far more than a workshop holds'
    case 'too-many-files':
      return 'There are more photos and models in this file than a workshop holds'
    case 'too-large':
      return 'This file is larger than an archive that can be sent here (2 GB)'
    case 'not-empty':
      return 'An archive is only taken into an empty workshop, so that nothing can be mixed up. Start a workshop of its own for it'
    case 'stranger':
      return 'Something in this archive belongs to what is not in it'
    case 'no-workshop':
      return 'This archive does not say whose workshop it is'
    case 'photo':
      return 'A photo in this archive is none, or larger, or one more than is kept'
    case 'photos-of-nothing':
      return 'There are photos in this archive that belong to nothing'
    case 'model':
      return 'A model in this archive is not whole'
    case 'models-of-nothing':
      return 'There are models in this archive that belong to nothing'
    case 'not-worked-out':
      return 'A pour in this archive cannot be worked out from what is written of it'
    case 'here-already':
      return 'Something of this archive is in this workshop already'
    case 'foreign-file':
      return `There is something in this file that no archive of a workshop has (“${fault.name.slice(0, 60)}”)`
    case 'changed-file':
      return `“${fault.name}” in this archive is not as it was written. Take an untouched copy`
    case 'long-line':
      return `A line of “${fault.name}” in this archive is longer than any can be`
    case 'large-file':
      return `“${fault.name}” in this archive is larger than anything of its kind can be`
    case 'newer':
      return `This archive was written by a newer Nine Ripples (format ${fault.version}; this one reads up to ${ARCHIVE_VERSION}). Bring this one up to date first`
    case 'unread-line':
      return `Line ${fault.line} of “${fault.name}” in this archive cannot be read`
    case 'deep-line':
      return `Line ${fault.line} of “${fault.name}” in this archive is nested deeper than any can be`
    case 'line':
      return `Line ${fault.line} of “${fault.name}” in this archive says something that cannot be (${fault.path})`
    case 'thing':
      return `A ${fault.kind} in this archive says something that cannot be (${fault.why})`
    case 'entry':
      return `An entry of the pour “${fault.pour}” in this archive says something that cannot be (${fault.path})`
    case 'entries':
      return fault.why.replace(/\.$/, '')
    case 'twice':
      return `“${fault.name}” in this archive has the same thing twice (${fault.id})`
  }
}

export const archiveWords = (fault: ArchiveFault): string => `${why(fault)}. Nothing was taken in.`
