import type { TableProblem } from './table-file'

/** Why a file is no table that can be read. */
export const TABLE_PROBLEM_WORDS: Readonly<Record<TableProblem, string>> = {
  'no-table':
    'There is no table in this file. Save it from your spreadsheet as CSV, with the names of the columns in the first line.',
  'too-wide': 'This table has more than two hundred columns. Leave out those that are not about casting.',
  'too-long': 'This table has more than twenty thousand lines. Cut it into several.',
}

export const leftOutWords = (rows: number) => `${rows} ${rows === 1 ? 'row' : 'rows'} left out, as said below.`
