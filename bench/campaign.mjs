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
const { status } = spawnSync('npx', ['vitest', 'run', '--project', 'server', 'malformed', 'sync'], {
  stdio: 'inherit',
  env: { ...process.env, CAMPAIGN_SEED: String(seed) },
})
console.log(`Seed ${seed}, commit ${commit}: ${status === 0 ? 'held' : 'failed'}`)
process.exit(status ?? 1)
