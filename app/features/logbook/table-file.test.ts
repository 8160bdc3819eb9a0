import { describe, expect, it } from 'vitest'
import { MOST_COLUMNS, MOST_LINES, readTableFile } from './table-file'

describe('somebody’s table', () => {
  it('is read whatever stands between its columns, with or without a mark of its letters', () => {
    for (const mark of [';', ',', '\t'])
      expect(readTableFile(`\uFEFFDay${mark}Form\n3/11/2019${mark}Garden tile`).table).toEqual({
        head: ['Day', 'Form'], lines: [['3/11/2019', 'Garden tile']],
      })
  })

  it.each([
    ['nothing', ''],
    ['one column', 'only one column\n'],
    ['heads alone', 'Day;Form\n;\n'],
    ['no text', 'Day;Form\n\0;\u0001\n'],
  ])('%s is none', (_, text) => {
    expect(readTableFile(text)).toEqual({ problem: 'no-table' })
  })

  it('wider or longer than any table is told, and not read to its end', () => {
    expect(readTableFile(`Day;Form\n${';'.repeat(MOST_COLUMNS)}x`)).toEqual({ problem: 'too-wide' })
    expect(readTableFile(`Day;Form\n${'1;2\n'.repeat(MOST_LINES + 1)}`)).toEqual({ problem: 'too-long' })
    expect(readTableFile(`Day;Form\n${'1;2\n'.repeat(MOST_LINES - 1)}`).table?.lines.length).toBe(MOST_LINES)
  })
})
