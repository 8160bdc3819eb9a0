import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath, pathToFileURL } from 'node:url'
import { brotliCompressSync, gzipSync } from 'node:zlib'
import vue from '@vitejs/plugin-vue'
import { build, type InlineConfig } from 'vite'

const at = (path: string) => fileURLToPath(new URL(`../${path}`, import.meta.url))
/** It comes from a file, without the server's own policy for pages. */
const POLICY = 'default-src \'self\'; script-src \'self\'; style-src \'self\' \'unsafe-inline\'; img-src \'self\' data: blob:; '
  + 'connect-src \'self\'; object-src \'none\'; base-uri \'none\'; form-action \'none\''
/** Where its scripts, styles and letters lie, as they are asked for. */
export const DOOR_FILES = '/_door/'

const shared = (outDir: string): InlineConfig => ({
  root: at('.'),
  configFile: false,
  logLevel: 'warn',
  base: DOOR_FILES,
  publicDir: false,
  resolve: { alias: { '~core': at('core'), '~contract': at('contract'), '~': at('app') } },
  plugins: [vue()],
  build: { outDir, emptyOutDir: true, assetsInlineLimit: 0, target: 'es2022' },
})

/**
 * Builds the door as a page of its own: small, drawn already, and taken over by its script. The application is behind
 * it, at addresses of its own. @param publicDir where built files are served from
 */
export async function buildDoor(publicDir: string): Promise<void> {
  const outDir = join(publicDir, DOOR_FILES), drawing = mkdtempSync(join(tmpdir(), 'door-'))
  try {
    await build({
      ...shared(outDir),
      build: { ...shared(outDir).build, rollupOptions: { input: at('app/door/main.ts') }, manifest: 'manifest.json' },
    })
    await build({
      ...shared(drawing),
      build: { ...shared(drawing).build, ssr: at('app/door/draw.ts'), rollupOptions: { output: { entryFileNames: 'draw.mjs' } } },
      ssr: { noExternal: true },
    })
    const { draw } = await import(pathToFileURL(join(drawing, 'draw.mjs')).href) as { draw: () => Promise<string> }
    writePage(publicDir, await draw())
  }
  finally {
    rmSync(drawing, { recursive: true, force: true })
  }
}

function writePage(publicDir: string, drawn: string): void {
  const outDir = join(publicDir, DOOR_FILES), manifest = join(outDir, 'manifest.json')
  const made = JSON.parse(readFileSync(manifest, 'utf8')) as Record<string, { file: string, css?: string[], isEntry?: boolean }>
  const entry = Object.values(made).find(m => m.isEntry)
  if (!entry) throw new Error('the door has no script')
  rmSync(manifest)
  // In the page itself: on a slow network one more answer to wait for is the longest part of the first picture.
  const styles = (entry.css ?? []).map(f => `<style>${readFileSync(join(outDir, f), 'utf8')}</style>`).join('')
  mkdirSync(join(publicDir, 'door'), { recursive: true })
  writeFileSync(join(publicDir, 'door/index.html'), `<!doctype html>
<html lang="en-GB"><head><meta charset="utf-8"><title>New pour · Nine Ripples</title>
<meta name="viewport" content="width=device-width, initial-scale=1"><meta name="theme-color" content="#23292e">
<meta http-equiv="Content-Security-Policy" content="${POLICY}">
<meta name="description" content="What to mix for what you are filling: water and plaster, by weight and by cups.">
<link rel="icon" type="image/svg+xml" href="/ripples.svg"><link rel="manifest" href="/app.webmanifest">
${styles}<script type="module" fetchpriority="high" src="${DOOR_FILES}${entry.file}"></script></head>
<body><div id="door">${drawn}</div></body></html>
`)
  for (const file of [join(publicDir, 'door/index.html'), ...filesUnder(outDir)]) {
    if (!/\.(html|js|css)$/.test(file)) continue
    const bytes = readFileSync(file)
    writeFileSync(`${file}.gz`, gzipSync(bytes, { level: 9 }))
    writeFileSync(`${file}.br`, brotliCompressSync(bytes))
  }
}

function filesUnder(folder: string): string[] {
  return readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter(f => f.isFile()).map(f => join(f.parentPath, f.name))
}
