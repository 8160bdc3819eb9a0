import Papa from 'papaparse'

/** Somebody's table, read no further than a table can be. */

export const MOST_COLUMNS = 200, MOST_LINES = 20_000

interface ReadTable { readonly head: readonly string[], readonly lines: readonly (readonly string[])[] }
export type TableProblem = 'no-table' | 'too-wide' | 'too-long'

/** @param text of a file, with any of the usual marks between columns @returns the table, or why it is none */
export function readTableFile(text: string): { readonly table?: ReadTable, readonly problem?: TableProblem } {
  if (text.includes('\0')) return { problem: 'no-table' }
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { preview: MOST_LINES + 2 })
  const [head, ...lines] = data
  if (!head || head.length < 2 || lines.every(l => l.every(c => c.trim() === ''))) return { problem: 'no-table' }
  if (data.some(l => l.length > MOST_COLUMNS)) return { problem: 'too-wide' }
  return lines.length > MOST_LINES ? { problem: 'too-long' } : { table: { head, lines } }
}
