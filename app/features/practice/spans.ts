import type { Act, Entry, Log } from '~core/practice/types'

/** A log as stretches of time, to be set beside another's; openings and painting lie far beyond and are not drawn. */
export interface Span {
  readonly kind: Act['do']
  readonly word: string
  readonly from: number
  readonly to: number
}

const WORDS: Readonly<Record<Act['do'], string>> = {
  'scrub': 'Scrubbed the bucket', 'next-bucket': 'Another bucket', 'water': 'Water in', 'strew': 'Strewn',
  'lift': 'Lifted off', 'stir': 'Stirred', 'tap-bucket': 'Tapped the bucket', 'coat': 'Brushed on', 'tilt': 'Tilted',
  'swill': 'Swilled', 'plug': 'Clay on', 'open': 'Opened', 'paint': 'Painted', 'pour': 'Poured', 'tap': 'Tapped',
}
const NOT_DRAWN: ReadonlySet<Act['do']> = new Set(['open', 'paint', 'lift'])
const POURING = 15, SHORT = 3
function lengthOf(act: Act): number {
  if ('seconds' in act) return act.seconds
  return act.do === 'pour' ? POURING : SHORT
}
const isLong = (act: Act) => 'seconds' in act || act.do === 'pour'
const byClock = (act: Act) => act.do === 'open' || act.do === 'paint'

/** From the first handful on; what follows itself is one. */
export function spansOf(log: Log): readonly Span[] {
  const spans: Span[] = []
  const first = log.findIndex(e => e.act.do === 'strew')
  let now = 0
  for (const [i, { gap, act }] of log.entries()) {
    if (i < first || first < 0 || byClock(act)) continue
    if (i > first) now += gap
    const length = lengthOf(act), last = spans.at(-1)
    if (last?.kind === act.do) spans[spans.length - 1] = { ...last, to: now + length }
    else if (!NOT_DRAWN.has(act.do)) spans.push({ kind: act.do, word: WORDS[act.do], from: now, to: now + length })
    if (isLong(act)) now += length
  }
  return spans
}

/** The first of each kind in a row: where one may go back to. */
export interface Group { readonly entry: Entry, readonly word: string, readonly at: number }
export function groupsOf(log: Log): readonly Group[] {
  let now = 0
  return log.flatMap((entry, i): Group[] => {
    const { gap, act } = entry
    const at = byClock(act) ? gap : now + gap
    now = (byClock(act) ? now : at) + (isLong(act) ? lengthOf(act) : 0)
    return i > 0 && log[i - 1]!.act.do === act.do ? [] : [{ entry, word: WORDS[act.do], at }]
  })
}
