// @ts-check
/** Ends with a plain sentence instead of a stack trace. */
export class Plain extends Error {}

// Nobody reading any more (a closed pipe) is no reason to end, least of all with a server and a database still running.
process.stdout.on('error', () => {})

/** @param {string} line */
export function say(line) {
  process.stdout.write(`${line}\n`)
}

/** @param {unknown} error @returns {never} */
export function giveUp(error) {
  const code = /** @type {NodeJS.ErrnoException} */ (error)?.code
  if (code === 'ENOSPC') process.stderr.write('The disk is full. Make some room and try again; nothing is lost.\n')
  else process.stderr.write(
    `${error instanceof Plain ? error.message : error instanceof Error ? error.stack : error}\n`,
  )
  process.exit(1)
}
