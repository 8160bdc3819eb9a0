import type { Filled, Mixing, Task, Timetable } from './round'

/**
 * A timetable as it is drawn: one row for each person, each mould and each bucket on one axis of time. Numbers in,
 * rows out; nothing here knows a colour or a word.
 */

export interface Block {
  readonly from: number
  readonly to: number
  readonly what: Task['kind'] | 'set' | 'in-use'
  /** The bucket's number, from 0; -1 of what stood before. */
  readonly mix: number
}
export interface DayRow {
  readonly of: 'person' | 'mould' | 'bucket'
  readonly number: number
  /** Of a mould. */
  readonly shape?: number
  readonly blocks: readonly Block[]
}

const clipped = (from: number, to: number) => (b: Block): Block[] =>
  b.to <= from || b.from >= to ? [] : [{ ...b, from: Math.max(from, b.from), to: Math.min(to, b.to) }]

const personRow = (tasks: readonly Task[], number: number): DayRow => ({
  of: 'person', number,
  blocks: tasks.filter(t => t.person === number).sort((a, b) => a.from - b.from)
    .map(({ from, to, kind: what, mix }) => ({ from, to, what, mix })),
})

/** A mould: being filled, setting, and opened. */
function mouldBlocks(
  mixings: readonly Mixing[], tasks: readonly Task[], shape: number, copy: number,
): readonly Block[] {
  const own = (f: Filled) => f.shape === shape && f.copy === copy
  const filled = mixings.flatMap((m, mix) => m.moulds.filter(own).map(f => ({ ...f, mix })))
  return filled.flatMap(({ from, to, mix }): Block[] => {
    const open = tasks.find(t => t.kind === 'open' && t.mix === mix && t.shape === shape && t.copy === copy)
    const until = open?.from ?? Infinity
    return [
      { from, to, what: 'fill', mix }, { from: to, to: until, what: 'set', mix },
      ...open ? [{ from: open.from, to: open.to, what: 'open' as const, mix }] : [],
    ]
  })
}

/**
 * The rows of a span of time; a mould or bucket that is not used in it has a row without blocks.
 * @example layOutDay(table, { persons: 1, copies: [3], buckets: 2 }, 0, 1440)
 */
export function layOutDay(
  { mixings, tasks }: Pick<Timetable, 'mixings' | 'tasks'>,
  there: { readonly persons: number, readonly copies: readonly number[], readonly buckets: number },
  from: number, to: number,
): readonly DayRow[] {
  const each = <T>(n: number, row: (i: number) => T) => Array.from({ length: n }, (_, i) => row(i))
  const rows: readonly DayRow[] = [
    ...each(there.persons, p => personRow(tasks, p)),
    ...there.copies.flatMap((n, shape) => each(n, (copy): DayRow =>
      ({ of: 'mould', number: copy, shape, blocks: mouldBlocks(mixings, tasks, shape, copy) }))),
    ...each(there.buckets, (b): DayRow => ({
      of: 'bucket', number: b,
      blocks: mixings.flatMap((m, mix) => m.bucket === b ? [{ from: m.wet, to: m.cleaned, what: 'in-use' as const, mix }] : []),
    })),
  ]
  return rows.map(row => ({ ...row, blocks: row.blocks.flatMap(clipped(from, to)) }))
}
