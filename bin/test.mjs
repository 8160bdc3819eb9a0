// @ts-check
import { spawn, spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { startCluster } from './cluster.mjs'
import { buildIfChanged, checkNode, DATA, debianPackages, npmPackages, ROOT, run } from './setup.mjs'
import { giveUp, say } from './say.mjs'
import { writeScreenScripts } from './screen-scripts.mjs'

/** Lint, types, unit, server and browser tests, with all set-up. The counts come from the runners' own reports. */
const bin = (/** @type {string} */ name) => join(ROOT, 'node_modules/.bin', name)
const tally = { passed: 0, failed: 0, skipped: 0 }
/** @type {[string, number][]} What each suite took, minutes. */
const took = []
/** @type {string[]} What failed, by suite and name: said last, where the end of a long log is all that was kept. */
const fell = []

/** @template T @param {string} title @param {() => T} work @returns {T} */
function timed(title, work) {
  say(`\n── ${title}`)
  const start = performance.now()
  try {
    return work()
  }
  finally {
    took.push([title, (performance.now() - start) / 60_000])
  }
}

/**
 * A check without a report of its own counts as one test. What it says is shown when it is over, since two run at once.
 * @param {string} title @param {string} command @param {string[]} args
 */
async function check(title, command, args) {
  const start = performance.now(), child = spawn(bin(command), args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'] })
  let said = ''
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (text) => { said += text })
  const status = await new Promise(over => child.on('close', over).on('error', over))
  took.push([title, (performance.now() - start) / 60_000])
  say(`\n── ${title}\n${said.trim()}`)
  tally[status === 0 ? 'passed' : 'failed']++
  if (status !== 0) fell.push(`${title}\n${said.trim().split('\n').slice(-20).join('\n')}`)
}

/** @type {Parameters<typeof check>[]} Longest first. */
const CHECKS = [
  ['lint: all but screens', 'eslint', ['.', '--ignore-pattern', '**/*.vue']],
  ['types: screens', 'vue-tsc', ['--noEmit', '-p', 'tsconfig.json']],
  ['lint: screens', 'eslint', ['app/**/*.vue']],
  ['lint: scripts of screens', 'eslint', ['--config', 'eslint.screens.config.mjs', '.data/screen-scripts']],
  ['types: tests and tools', 'tsc', ['--noEmit', '-p', 'tsconfig.tools.json']],
  ['types: server', 'tsc', ['--noEmit', '-p', 'tsconfig.server.json']],
  ['types: core, without DOM or Node', 'tsc', ['--noEmit', '-p', 'core/tsconfig.json']],
]
/** One after the other, beside another that takes from the same list. */
async function takeChecks() {
  for (let next = CHECKS.shift(); next; next = CHECKS.shift()) await check(...next)
}

/** Names and first lines of what fell in a Vitest report. @param {any} counts @returns {string[]} */
function fallenUnits(counts) {
  return (counts?.testResults ?? []).flatMap((/** @type {any} */ file) => [
    ...file.status === 'failed' && file.assertionResults.length === 0 ? [`${file.name}\n${file.message}`] : [],
    ...file.assertionResults.filter((/** @type {any} */ test) => test.status === 'failed')
      .map((/** @type {any} */ test) => `${file.name} › ${test.fullName}\n${(test.failureMessages ?? []).join('\n').slice(0, 1500)}`),
  ])
}

/** The same of a Playwright report, whose suites stand in suites. @param {any} suite @returns {string[]} */
function fallenPages(suite) {
  return [
    ...(suite?.suites ?? []).flatMap(fallenPages),
    ...(suite?.specs ?? []).filter((/** @type {any} */ spec) => !spec.ok)
      .map((/** @type {any} */ spec) => `${spec.file}:${spec.line} › ${spec.title}`),
  ]
}

/** @param {string} file @returns {any} */
function report(file) {
  return existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : undefined
}

/** @param {string} project @param {NodeJS.ProcessEnv} env */
function vitest(project, env) {
  const file = join(DATA, `${project}-tests.json`)
  rmSync(file, { force: true })
  const { status } = timed(`${project} tests`, () => spawnSync(bin('vitest'), [
    'run', '--project', project, '--reporter=default', '--reporter=json', `--outputFile.json=${file}`,
  ], { cwd: ROOT, stdio: 'inherit', env }))
  const counts = report(file)
  tally.passed += counts?.numPassedTests ?? 0
  tally.failed += counts?.numFailedTests ?? 0
  tally.skipped += (counts?.numPendingTests ?? 0) + (counts?.numTodoTests ?? 0)
  fell.push(...fallenUnits(counts))
  // A file that could not even be loaded has no failed test in its report.
  if (status !== 0 && !(counts?.numFailedTests > 0)) tally.failed++
}

/** @param {NodeJS.ProcessEnv} env */
function playwright(env) {
  const file = join(DATA, 'browser-tests.json')
  rmSync(file, { force: true })
  const { status } = timed('browser tests', () =>
    spawnSync(bin('playwright'), ['test'], { cwd: ROOT, stdio: 'inherit', env }))
  const counts = report(file), stats = counts?.stats
  fell.push(...fallenPages(counts))
  tally.passed += stats?.expected ?? 0
  tally.failed += (stats?.unexpected ?? 0) + (stats?.flaky ?? 0)
  tally.skipped += stats?.skipped ?? 0
  if (status !== 0 && !(stats?.unexpected > 0)) tally.failed++
}

async function main() {
  checkNode()
  debianPackages({ chromium: true, several: true })
  npmPackages()
  run('npx', ['nuxt', 'prepare'])
  await writeScreenScripts()
  // Each takes one core; the build after them takes both, and writes what they read.
  await Promise.all([takeChecks(), takeChecks()])
  timed('build', buildIfChanged)
  const cluster = await startCluster(join(mkdtempSync(join(tmpdir(), 'ripples-')), 'pg'), { throwaway: true })
  try {
    const env = { ...process.env, TEST_DATABASE_BASE: cluster.url('') }
    vitest('core', env)
    vitest('components', env)
    vitest('server', env)
    playwright(env)
  }
  finally {
    cluster.stop()
  }
  if (fell.length) say(`\nWhat fell:\n\n${fell.join('\n\n')}`)
  say(`\nMinutes: ${took.map(([title, minutes]) => `${title} ${minutes.toFixed(1)}`).join(', ')}`)
  say(`${tally.passed} passed, ${tally.failed} failed, ${tally.skipped} skipped`)
  process.exit(tally.failed === 0 && tally.passed > 0 ? 0 : 1)
}

main().catch(giveUp)
