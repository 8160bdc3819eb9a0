// @ts-check
import { spawn, spawnSync } from 'node:child_process'
import { closeSync, openSync } from 'node:fs'
import { Plain } from '../say.mjs'

/** Programs that run beside each other, each under the least user, ended by their own ids and by nobody else's. */

/** Who owns the databases' files. */
export function databaseUser() {
  if (process.getuid?.() !== 0) return {}
  const [uid, gid] = ['-u', '-g'].map(flag => Number(spawnSync('id', [flag, 'postgres'], { encoding: 'utf8' }).stdout))
  return { uid, gid }
}

/**
 * @typedef {object} Program
 * @property {string} name @property {string} command @property {string[]} args
 * @property {NodeJS.ProcessEnv} [env] @property {string} log where it writes what it says
 * @property {{ uid?: number, gid?: number }} [user]
 * @property {() => void} [alsoEnd] what else goes at once when it is killed
 */

export class Programs {
  /** @type {Map<string, { program: Program, child?: import('node:child_process').ChildProcess }>} */
  #all = new Map()
  #stopping = false
  /** How long one that ended by itself stays away, ms; 0: for good. */
  #away

  /** @param {{ againAfterMs?: number }} [options] */
  constructor({ againAfterMs = 0 } = {}) {
    this.#away = againAfterMs
  }

  /** @param {Program} program */
  start(program) {
    const log = openSync(program.log, 'a')
    const child = spawn(program.command, program.args, {
      cwd: '/', stdio: ['ignore', log, log], detached: true, ...program.user, env: program.env ?? process.env,
    })
    closeSync(log)
    this.#all.set(program.name, { program, child })
    child.once('error', () => {})
    child.once('exit', () => {
      if (this.#stopping || this.#all.get(program.name)?.child !== child) return
      this.#all.set(program.name, { program })
      if (this.#away > 0) setTimeout(() => {
        if (!this.#stopping && !this.isUp(program.name)) this.start(program)
      }, this.#away).unref()
    })
  }

  /** @param {string} name */
  isUp(name) {
    return this.#all.get(name)?.child !== undefined
  }

  /** At once, as a machine goes whose power is cut. It stays away until `again`. @param {string} name */
  async kill(name) {
    const one = this.#all.get(name)
    if (!one?.child) throw new Plain(`${name} does not run.`)
    const { child, program } = one, gone = new Promise(done => child.once('exit', done))
    this.#all.set(name, { program })
    child.kill('SIGKILL')
    program.alsoEnd?.()
    await gone
  }

  /** @param {string} name */
  again(name) {
    const one = this.#all.get(name)
    if (one && !one.child) this.start(one.program)
  }

  /** Ends all in this order, each given time to end by itself. @param {string[]} order */
  async stop(order) {
    this.#stopping = true
    for (const name of order) {
      const child = this.#all.get(name)?.child
      if (!child || child.exitCode !== null || child.signalCode !== null) continue
      const gone = new Promise(done => child.once('exit', done))
      child.kill('SIGTERM')
      const late = setTimeout(() => {
        child.kill('SIGKILL')
        this.#all.get(name)?.program.alsoEnd?.()
      }, 20_000)
      await gone
      clearTimeout(late)
    }
  }
}
