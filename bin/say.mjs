// @ts-check
/** Ends with a plain sentence instead of a stack trace. */
export class Plain extends Error {}

// Nobody reading any more (a closed pipe) is no reason to end, least of all with a server and a database still running.
process.stdout.on('error', () => {})

/** @param {string} line */
export function say(line) {
  process.stdout.write(`${line}\n`)
}

/** @type {Readonly<Record<string, string>>} by the system's codes and PostgreSQL's */
const KNOWN = {
  'ENOSPC': 'The disk is full. Make some room and try again; nothing is lost.',
  '53100': 'The disk is full. Make some room and try again; nothing is lost.',
  'ECONNREFUSED': 'The database does not answer. Is it running, and is the address in DATABASE_URL right?',
  '28P01': 'The database refused the name or password in DATABASE_URL.',
  '42501': 'The database’s user in DATABASE_URL may not make a database, which reading a backup needs. Give it CREATEDB; or, where somebody else makes the backups, start with BACKUPS=off.',
}

/** @param {unknown} error @returns {never} */
export function giveUp(error) {
  const code = /** @type {NodeJS.ErrnoException} */ (error)?.code, known = code && KNOWN[code]
  if (known) process.stderr.write(`${known}\n`)
  else process.stderr.write(
    `${error instanceof Plain ? error.message : error instanceof Error ? error.stack : error}\n`,
  )
  process.exit(1)
}
