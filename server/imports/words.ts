/** Why an import broke off in the middle. @param code of the database or of the thread that worked on it */
export function importFaultWords(code: string | undefined): string {
  switch (code) {
    case 'ERR_WORKER_OUT_OF_MEMORY':
      return 'This file needs more memory than the server gives one.'
    case 'too-long':
      return 'This file took longer than the server works on one.'
    case '23505':
      return 'Something of it is in this workshop already.'
    case '53100':
    case 'ENOSPC':
      return 'The workshop’s server has no room left on its disk.'
    default:
      return 'Something went wrong on the server.'
  }
}
