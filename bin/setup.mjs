// @ts-check
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, statfsSync, writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { Plain, say } from './say.mjs'

/** Everything the machine needs before the product can run, each step skipped when it is already done. */
export const ROOT = resolve(fileURLToPath(new URL('..', import.meta.url)))
export const DATA = join(ROOT, '.data')

const isRoot = process.getuid?.() === 0

/** @param {string} command @param {string[]} args @param {import('node:child_process').SpawnSyncOptions} [options] */
export function run(command, args, options = {}) {
  return spawnSync(command, args, { cwd: ROOT, encoding: 'utf8', ...options })
}

export function checkNode() {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number)
  if (major < 20 || (major === 20 && minor < 19))
    throw new Plain(`Node.js 20.19 or newer is needed; this is ${process.versions.node}.`)
  mkdirSync(DATA, { recursive: true })
  const { bavail, bsize } = statfsSync(ROOT)
  if (bavail * bsize < 200e6) throw new Plain('Less than 200 MB are free on this disk. Make some room and try again.')
}

/** Folder of the newest PostgreSQL server programs, or undefined. */
export function postgresPrograms() {
  const base = '/usr/lib/postgresql'
  const versions = existsSync(base)
    ? readdirSync(base).filter(v => existsSync(join(base, v, 'bin/initdb'))).sort((a, b) => Number(b) - Number(a))
    : []
  return versions[0] && join(base, versions[0], 'bin')
}

/** Services of Debian's own that these packages would start, now or with the machine. @type {Record<string, string>} */
const SERVICES = { 'etcd-server': 'etcd', 'patroni': 'patroni', 'haproxy': 'haproxy' }

/**
 * Keeps Debian from starting services of its own while `work` installs what brings some: its rule for that is
 * policy-rc.d (invoke-rc.d(8)); those set to start with the machine are switched off.
 * @param {string[]} sudo @param {string[]} missing @param {() => void} work
 */
function withoutServices(sudo, missing, work) {
  const services = missing.flatMap(name => SERVICES[name] ?? [])
  if (services.length === 0) return work()
  const file = '/usr/sbin/policy-rc.d', there = existsSync(file)
  const asRoot = (/** @type {string} */ script) => run('sh', ['-c', `${sudo.join(' ')} sh -c '${script}'`])
  if (!there) asRoot(`printf "#!/bin/sh\\nexit 101\\n" > ${file} && chmod 755 ${file}`)
  try {
    work()
  }
  finally {
    if (!there) asRoot(`rm -f ${file}`)
    if (existsSync('/run/systemd/system')) asRoot(`systemctl disable ${services.join(' ')}`)
  }
}

/**
 * @param {{ chromium: boolean, several?: boolean }} wanted several: what several databases and a proxy before them need
 */
export function debianPackages({ chromium, several = false }) {
  const missing = [
    ...(postgresPrograms() ? [] : ['postgresql']),
    ...(chromium && !existsSync('/usr/bin/chromium') ? ['chromium'] : []),
    // For the tests of sharing: a browser that trusts one more authority, and another judge of certificates.
    ...(chromium && !existsSync('/usr/bin/certutil') ? ['libnss3-tools'] : []),
    ...(chromium && !existsSync('/usr/bin/openssl') ? ['openssl'] : []),
    ...(several && !existsSync('/usr/bin/patroni') ? ['patroni', 'python3-etcd'] : []),
    ...(several && !existsSync('/usr/bin/etcd') ? ['etcd-server'] : []),
    ...(several && !existsSync('/usr/bin/etcdctl') ? ['etcd-client'] : []),
    ...(several && !existsSync('/usr/sbin/haproxy') ? ['haproxy'] : []),
  ]
  if (missing.length === 0) return
  const byHand = `Install ${missing.length > 1 ? 'them' : 'it'} with:  sudo apt-get install ${missing.join(' ')}`
  if (!existsSync('/usr/bin/apt-get')) throw new Plain(`Needed and not found: ${missing.join(', ')}.`)
  const sudo = isRoot ? [] : ['sudo', '-n']
  if (!isRoot && run('sudo', ['-n', 'true']).status !== 0)
    throw new Plain(`Needed and not found: ${missing.join(', ')}. ${byHand}`)
  say(`Installing from Debian: ${missing.join(', ')} …`)
  if (missing.includes('postgresql')) {
    // Without this the package makes and starts a cluster of its own, which nobody asked for.
    run('sh', [
      '-c',
      `${sudo.join(' ')} mkdir -p /etc/postgresql-common/createcluster.d && echo 'create_main_cluster = false' | ${
        sudo.join(' ')
      } tee /etc/postgresql-common/createcluster.d/nine-ripples.conf >/dev/null`,
    ])
  }
  const apt = () =>
    run([...sudo, 'apt-get'][0] ?? 'apt-get', [
      ...sudo.slice(1),
      ...(sudo.length ? ['apt-get'] : []),
      'install',
      '-y',
      '--no-install-recommends',
      ...missing,
    ], { env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } })
  /** @type {ReturnType<typeof apt> | undefined} */
  let result
  withoutServices(sudo, missing, () => {
    result = apt()
    if (result.status === 0) return
    run([...sudo, 'apt-get'][0] ?? 'apt-get', [...sudo.slice(1), ...(sudo.length ? ['apt-get'] : []), 'update'])
    result = apt()
  })
  if (result?.status !== 0)
    throw new Plain(
      `Debian's package manager could not install ${missing.join(' and ')}:\n${
        String(result?.stderr).trim().split('\n').slice(-3).join('\n')
      }\n${byHand}`,
    )
}

/** @param {string} file */
function hashOf(file) {
  return createHash('sha256').update(readFileSync(file)).digest('hex')
}

/** @param {string} name @param {string} value */
function isCurrent(name, value) {
  const file = join(DATA, name)
  return existsSync(file) && readFileSync(file, 'utf8') === value
}

export function npmPackages() {
  const lock = hashOf(join(ROOT, 'package-lock.json'))
  if (!existsSync(join(ROOT, 'node_modules/nuxt')) || !isCurrent('packages', lock)) {
    say('Installing npm packages …')
    // Scripts stay off: nothing that is needed here is built on install. The second form is for machines whose
    // registry lacks optional binaries of other platforms, where a strict install calls the lock out of step.
    const strict = run('npm', ['ci', '--ignore-scripts', '--no-audit', '--no-fund'])
    if (strict.status !== 0) {
      const loose = run('npm', ['install', '--no-save', '--ignore-scripts', '--no-audit', '--no-fund'])
      if (loose.status !== 0)
        throw new Plain(
          `The npm packages could not be installed:\n${String(loose.stderr).trim().split('\n').slice(-5).join('\n')}`,
        )
    }
    writeFileSync(join(DATA, 'packages'), lock)
  }
  if (
    !existsSync(join(ROOT, '.nuxt/tsconfig.json'))
    || !isCurrent('prepared', lock + hashOf(join(ROOT, 'nuxt.config.ts')))
  ) {
    const prepared = run('npx', ['nuxt', 'prepare'])
    if (prepared.status !== 0) throw new Plain(`The type information could not be made:\n${prepared.stderr}`)
    writeFileSync(join(DATA, 'prepared'), lock + hashOf(join(ROOT, 'nuxt.config.ts')))
  }
}

const SOURCES = [
  'app',
  'core',
  'contract',
  'server',
  'public',
  'docs/figures',
  'docs/model.md',
  'nuxt.config.ts',
  'package-lock.json',
  'bin/service-worker.ts',
  'bin/door.ts',
]

/** @param {string} path @returns {string[]} */
function filesBelow(path) {
  if (!existsSync(path)) return []
  const entries = readdirSync(path, { withFileTypes: true })
  return entries.flatMap(e => e.isDirectory() ? filesBelow(join(path, e.name)) : [join(path, e.name)])
}

/** Builds when a source changed since the last build. */
export function buildIfChanged() {
  const hash = createHash('sha256')
  for (const source of SOURCES.flatMap(s => s.includes('.') ? [join(ROOT, s)] : filesBelow(join(ROOT, s)).sort())) {
    if (source.endsWith('.test.ts')) continue
    hash.update(source.slice(ROOT.length)).update(readFileSync(source))
  }
  const digest = hash.digest('hex')
  if (existsSync(join(ROOT, '.output/server/index.mjs')) && isCurrent('build', digest)) return
  say('Building (about a minute and a half) …')
  const built = run('npx', ['nuxt', 'build'], {
    maxBuffer: 64e6,
    env: { ...process.env, NODE_OPTIONS: '--max-old-space-size=4096' },
  })
  if (built.status !== 0) throw new Plain(`The build failed:\n${built.stdout}\n${built.stderr}`)
  writeFileSync(join(DATA, 'build'), digest)
}
