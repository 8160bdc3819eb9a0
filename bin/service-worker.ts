import { createHash } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { join, relative } from 'node:path'

/**
 * What runs between page and network, as it is served: the shell of the application from its own store, and nothing of
 * anybody's data.
 */
function worker(version: string, files: readonly string[]): string {
  return `// Made at build time (bin/service-worker.ts).
const SHELL = 'shell-${version}', FILES = ${JSON.stringify(files)}
addEventListener('install', event => event.waitUntil((async () => {
  const cache = await caches.open(SHELL)
  // A few at a time: a small server also has people to serve.
  for (let i = 0; i < FILES.length; i += 8) await cache.addAll(FILES.slice(i, i + 8))
  await skipWaiting()
})()))
addEventListener('activate', event => event.waitUntil((async () => {
  // The shell before this one stays: a tab that is still open may ask for its parts.
  const old = (await caches.keys()).filter(k => k.startsWith('shell-') && k !== SHELL).sort()
  await Promise.all(old.slice(0, -1).map(k => caches.delete(k)))
  await clients.claim()
})()))
addEventListener('fetch', (event) => {
  const { request } = event, url = new URL(request.url)
  if (request.method !== 'GET' || url.origin !== location.origin) return
  if (request.mode === 'navigate') {
    // A network that neither answers nor fails must not keep a person with plaster on their hands waiting.
    const late = new Promise((_, fail) => setTimeout(fail, 4000))
    event.respondWith(Promise.race([fetch(request), late]).catch(async () => await caches.match(url.pathname === '/door' ? '/door' : '/') ?? await caches.match('/') ?? fetch(request)))
  }
  else if (url.pathname.startsWith('/_nuxt/') || FILES.includes(url.pathname)) event.respondWith(caches.match(request, { ignoreVary: true }).then(kept => kept ?? fetch(request)))
})
`
}

const walk = (folder: string): string[] => readdirSync(folder).flatMap((name) => {
  const path = join(folder, name)
  return statSync(path).isDirectory() ? walk(path) : [path]
})

/** Writes sw.js beside the built files that it keeps: scripts, styles and fonts, and the page itself. */
export function writeServiceWorker(publicDir: string): void {
  const files = walk(publicDir).map(path => `/${relative(publicDir, path)}`).filter(f =>
    !/\.(gz|br|map)$/.test(f) && (/^\/_(nuxt|door)\//.test(f) || /^\/[^/]+\.(svg|png|webmanifest)$/.test(f) || f === '/first.js'),
  ).sort()
  const hash = createHash('sha256')
  for (const f of files) hash.update(f).update(readFileSync(join(publicDir, f)))
  // Names sort by the time they were built.
  writeFileSync(
    join(publicDir, 'sw.js'),
    worker(`${new Date().toISOString().replace(/\D/g, '').slice(0, 14)}-${hash.digest('hex').slice(0, 12)}`, [
      // What somebody may need first where the network goes: the door, then the rest.
      ...existsSync(join(publicDir, 'door/index.html')) ? ['/door'] : [],
      ...files.filter(f => f.startsWith('/_door/')),
      '/',
      ...files.filter(f => !f.startsWith('/_door/')),
    ]),
  )
}
