import MiniSearch from 'minisearch'
import { GLOSSARY, TOPICS } from './words'

/** What the help page looks through: how things are done, and what words mean. */
export interface Entry {
  readonly id: string
  readonly title: string
  readonly text: string
  readonly also: string
  readonly to?: string
}

export const ENTRIES: readonly Entry[] = [
  ...TOPICS.map(t => ({ ...t, id: `topic-${t.id}`, also: '' })),
  ...Object.entries<{ readonly term: string, readonly means: string, readonly also?: string }>(GLOSSARY)
    .map(([id, t]) => ({ id: `term-${id}`, title: t.term, text: t.means, also: t.also ?? '' }))
    .sort((a, b) => a.title.localeCompare(b.title)),
]
const BY_ID = new Map(ENTRIES.map(e => [e.id, e]))

/** By whole words, beginnings and near misses; titles count most. @returns all where nothing is sought, best first */
export function makeSearch(): (sought: string) => readonly Entry[] {
  const index = new MiniSearch<Entry>({
    fields: ['title', 'also', 'text'], searchOptions: { prefix: true, fuzzy: 0.2, boost: { title: 4, also: 3 } },
  })
  index.addAll([...ENTRIES])
  return sought => sought.trim() === ''
    ? ENTRIES
    : index.search(sought).map(found => BY_ID.get(String(found.id))!)
}
