// @ts-check
import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { DATA, ROOT } from './setup.mjs'

/**
 * The scripts of all screens as plain files, line for line, under .data/screen-scripts: there one program holds them
 * all for the rules that need types. Asked of the screens themselves, the parser makes one anew for each.
 */
export async function writeScreenScripts() {
  // Not there yet when this file is loaded on a bare machine.
  const { parse } = await import('vue/compiler-sfc')
  const folder = join(DATA, 'screen-scripts')
  rmSync(folder, { recursive: true, force: true })
  const screens = readdirSync(join(ROOT, 'app'), { recursive: true, encoding: 'utf8' }).filter(f => f.endsWith('.vue'))
  for (const screen of screens) {
    const file = join(folder, 'app', `${screen}.ts`), source = readFileSync(join(ROOT, 'app', screen), 'utf8')
    const { script, scriptSetup } = parse(source, { filename: screen, sourceMap: false }).descriptor
    mkdirSync(dirname(file), { recursive: true })
    writeFileSync(file, atTheirLines([script, scriptSetup], source.split('\n').length))
  }
  writeFileSync(join(folder, 'tsconfig.json'), JSON.stringify({
    extends: '../../tsconfig.json',
    compilerOptions: { rootDirs: ['../..', '.'], noEmit: true },
    include: ['app/**/*.ts', '../../.nuxt/nuxt.d.ts'],
    exclude: [],
  }))
}

/** @param {(import('vue/compiler-sfc').SFCScriptBlock | null)[]} scripts @param {number} length */
function atTheirLines(scripts, length) {
  const lines = Array.from({ length }, () => '')
  for (const script of scripts.filter(x => x !== null))
    for (const [i, line] of script.content.split('\n').entries()) lines[script.loc.start.line - 1 + i] += line
  return lines.join('\n')
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) await writeScreenScripts()
