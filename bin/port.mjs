// @ts-check
import { createServer } from 'node:net'
import { Plain } from './say.mjs'

/** @param {string} host @param {number} port @returns {Promise<boolean>} */
export function isFree(host, port) {
  return new Promise((resolve) => {
    const server = createServer()
    server.once('error', () => resolve(false))
    server.listen(port, host, () => server.close(() => resolve(true)))
  })
}

/**
 * The port that was asked for with PORT, or the first free one of twenty.
 * @param {string} host @param {number} first @throws Plain when none will do
 */
export async function choosePort(host, first) {
  const asked = process.env.PORT
  if (asked !== undefined) {
    const port = Number(asked)
    if (!Number.isInteger(port) || port < 1 || port > 65_535)
      throw new Plain(`PORT=${asked} is not a port. Use a number from 1024 to 65535.`)
    if (!await isFree(host, port))
      throw new Plain(`Port ${port} is in use by another program. Choose another with PORT=…, or leave PORT out.`)
    return port
  }
  for (let port = first; port < first + 20; port++) if (await isFree(host, port)) return port
  throw new Plain(`Ports ${first} to ${first + 19} are all in use. Choose one with PORT=…`)
}

/**
 * The port that was asked for with PORT, or where to begin to try: whoever listens tries them one after the other, so
 * that two that start at once do not take the same.
 * @param {string} host @param {number} first @throws Plain when the one asked for is none, or is taken
 */
export async function wantedPort(host, first) {
  return process.env.PORT === undefined ? { port: first, tries: 20 } : { port: await choosePort(host, first), tries: 1 }
}
