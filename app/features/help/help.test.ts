import { describe, expect, it } from 'vitest'
import { PAGE_TITLES } from '~/ui/titles'
import { ENTRIES, makeSearch } from './search'
import { splitByTerms } from './terms'
import { GLOSSARY, KEYS, TOPICS, TOUR } from './words'

describe('help', () => {
  const search = makeSearch(), titles = (sought: string) => search(sought).map(e => e.title)
  it('has sixty words of the trade, each told in a sentence or more, none twice', () => {
    const terms = Object.values(GLOSSARY)
    expect(terms.length).toBeGreaterThanOrEqual(60)
    expect(new Set(terms.map(t => t.term.toLowerCase())).size).toBe(terms.length)
    for (const t of terms) expect(t.means, t.term).toMatch(/^[A-Z].*[.:]$/)
  })
  it('finds by a word, its beginning, another word for it, and a slip of the finger', () => {
    expect(titles('islands')[0]).toBe('Islands')
    expect(titles('slak')[0]).toBe('Soak')
    expect(titles('dental')).toContain('Alginate')
    expect(titles('undrcut')[0]).toBe('Undercut')
    expect(titles('phone')[0]).toBe('Use it on a phone')
    expect(titles('zzzz')).toEqual([])
    expect(titles('  ')).toHaveLength(ENTRIES.length)
  })
  it('leads to pages that there are; the tour has five steps', () => {
    const pages = new Set(Object.keys(PAGE_TITLES).map(name => name === 'index' ? '/' : `/${name.replaceAll('-', '/')}`))
    for (const t of TOPICS) if (t.to) expect(pages, t.title).toContain(t.to)
    expect(TOUR).toHaveLength(5)
    expect(new Set(KEYS.map(k => k.key)).size).toBe(KEYS.length)
  })
  it('finds the words of the trade in a sentence, each once, and loses no letter of it', () => {
    const said = 'Let it soak: islands mean enough. Soaking longer makes fewer lumps; too stiff is too late.'
    const parts = splitByTerms(said)
    expect(parts.map(p => p.text).join('')).toBe(said)
    expect(parts.flatMap(p => p.term ?? [])).toEqual(['slake', 'islands', 'lump', 'stiff'])
    expect(splitByTerms('A released event, prevented.')).toEqual([{ text: 'A released event, prevented.' }])
    expect(splitByTerms('')).toEqual([])
  })
})
