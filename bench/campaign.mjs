// @ts-check
import { spawnSync } from 'node:child_process'
import { randomInt } from 'node:crypto'

/**
 * The large tests whole, with a fresh seed (bin/test runs a twentieth of each with one that stays). What comes out goes
 * into bench/README.md with its commit; a seed that fails becomes a test of its own.
 * `npm run campaign [SEED]`
 */
const seed = Number(process.argv[2]) || randomInt(1, 2 ** 31 - 1)
const commit = spawnSync('git', ['rev-parse', '--short', 'HEAD'], { encoding: 'utf8' }).stdout.trim()
console.log(`Seed ${seed}, commit ${commit}`)
const env = { ...process.env, CAMPAIGN_SEED: String(seed) }
/** @param {string[]} args */
const runs = args => spawnSync('npx', args, { stdio: 'inherit', env }).status === 0
// Strings that are typed; windows and rounds beside exact methods, a quarter of an hour.
// Requests, histories and kills; then browsers behind a line that fails. Both use the build that is there.
const held = [
  runs(['vitest', 'run', '--project', 'core', 'typed-quantities', 'typed-ratios', 'core/schedule']),
  runs(['vitest', 'run', '--project', 'server', 'malformed', 'sync', 'kills']),
  runs(['playwright', 'test', 'faulty']),
  // Practice, 100 seeds of each scenario: it prints its shares, which go into bench/README.md.
  runs(['tsx', '--tsconfig', 'tsconfig.tools.json', 'bench/practice.ts', String(seed), '100']),
  // An hour of fifty benches on several servers, each of which is killed and comes back.
  spawnSync(process.execPath, ['bench/soak.mjs'], { stdio: 'inherit' }).status === 0,
].every(Boolean)
console.log(`Seed ${seed}, commit ${commit}: ${held ? 'held' : 'failed'}`)
process.exit(held ? 0 : 1)
