/**
 * Tables as comma-separated values (RFC 4180): quoted where they must be, lines ended by CR LF, and first a mark that
 * it is UTF-8. Words that a spreadsheet
 * would take for a formula get an apostrophe before them, so that opening a file never runs what someone wrote into a
 * note.
 */
export type Cell = string | number | undefined

/** What spreadsheets take for the beginning of a formula or of a command; in full width too, which some read alike. */
const FORMULA = /^[=+\-@|\t\r\n＝＋－＠｜]/

export function csvCell(value: Cell): string {
  if (value === undefined) return ''
  if (typeof value === 'number') return Number.isFinite(value) ? String(value) : ''
  const safe = FORMULA.test(value) ? `'${value}` : value
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe
}

export function csvRow(cells: readonly Cell[]): string {
  return `${cells.map(csvCell).join(',')}\r\n`
}

export const CSV_MARK = '\uFEFF'
