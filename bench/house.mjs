// @ts-check
import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { dirname } from 'node:path'
import ts from 'typescript'

/**
 * The code as a house, measured: `npm run house [folder]`. Line lengths, functions over 60 lines, files a room, and how
 * often the
 * type checker was overruled. Comments and blank lines within a function count as its lines. Another checkout can be
 * named, so that
 * before and after stand in one table.
 */

const root = process.argv[2] ?? '.'
/** Most lines of one function, and most files of one room of the core. */
const LONGEST = 60
const ROOMIEST = 12

/** @param {string} file */
const read = file => readFileSync(`${root}/${file}`, 'utf8')
const files = execFileSync('git', ['-C', root, 'ls-files'], { encoding: 'utf8' }).split('\n')
  .filter(f => /\.(ts|mts|mjs|vue)$/.test(f))
const isTest = (/** @type {string} */ f) => /\.(test|spec)\.ts$/.test(f) || f.startsWith('tests/')
const isWords = (/** @type {string} */ f) => f.endsWith('words.ts')

/** The script of a Vue file, with the lines before it blank, so that numbers stay true. @param {string} file */
function script(file) {
  const text = read(file)
  if (!file.endsWith('.vue')) return text
  const found = /<script[^>]*>\n([\s\S]*?)<\/script>/.exec(text)
  return found ? '\n'.repeat(text.slice(0, found.index).split('\n').length) + found[1] : ''
}

/** @param {ts.Node} node @param {ts.SourceFile} source */
function nameOf(node, source) {
  const named = /** @type {any} */ (node).name ?? /** @type {any} */ (node.parent).name
  return named ? named.getText(source) : 'unnamed'
}

/** @type {{ at: string, lines: number }[]} */
const long = []
let bangs = 0, asNever = 0, asAny = 0
for (const file of files.filter(f => !isTest(f))) {
  const source = ts.createSourceFile(file, script(file), ts.ScriptTarget.ES2022, true)
  const line = (/** @type {number} */ at) => source.getLineAndCharacterOfPosition(at).line
  /** @param {ts.Node} node */
  const visit = (node) => {
    if (ts.isNonNullExpression(node)) bangs++
    if (ts.isAsExpression(node) && node.type.kind === ts.SyntaxKind.NeverKeyword) asNever++
    if (ts.isAsExpression(node) && node.type.kind === ts.SyntaxKind.AnyKeyword) asAny++
    if (ts.isFunctionLike(node) && 'body' in node && node.body) {
      const start = line(node.getStart(source)), lines = line(node.end) - start + 1
      if (lines > LONGEST) long.push({ at: `${file}:${start + 1} ${nameOf(node, source)}`, lines })
    }
    ts.forEachChild(node, visit)
  }
  visit(source)
}

/** @param {string[]} of */
function lengths(of) {
  const lines = of.flatMap(f => read(f).split('\n')).filter(l => l.trim() !== '')
  const over = (/** @type {number} */ n) => {
    const count = lines.filter(l => l.length > n).length
    return `${count} (${(100 * count / lines.length).toFixed(2)} %)`
  }
  return { lines: lines.length, over120: over(120), over160: over(160), over200: over(200) }
}

/** @type {Map<string, number>} */
const rooms = new Map()
for (const f of files.filter(f => f.startsWith('core/') && !isTest(f)))
  rooms.set(dirname(f), (rooms.get(dirname(f)) ?? 0) + 1)

console.table({
  'all code': lengths(files),
  'without tests': lengths(files.filter(f => !isTest(f))),
  'without tests and words': lengths(files.filter(f => !isTest(f) && !isWords(f))),
})
console.log(`functions over ${LONGEST} lines: ${long.length}`)
for (const { at, lines } of long.sort((a, b) => b.lines - a.lines)) console.log(`  ${lines}  ${at}`)
console.log(`! ${bangs}, as never ${asNever}, as any ${asAny}`)
console.log(
  `rooms of the core over ${ROOMIEST} files: ${
    [...rooms].filter(([, n]) => n > ROOMIEST).map(([r, n]) =>
      `${r} ${n}`,
    ).join(', ') || 'none'
  }`,
)
console.log(`files a room: ${[...rooms].map(([r, n]) => `${r} ${n}`).join(', ')}`)
