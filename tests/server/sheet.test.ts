import { PDFDocument } from 'pdf-lib'
import { describe, expect, it } from 'vitest'
import { FORM_IDS } from '../../core/drawing/form-ids'
import type { BenchSheet } from '../../core/formats/sheet'
import { labelsPdf } from '../../server/formats/labels'
import { benchSheetPdf } from '../../server/formats/sheet'

const sheet = (over: Partial<BenchSheet> = {}): BenchSheet => ({
  title: 'Six lantern bases',
  facts: ['Gypsum cement'],
  batches: [{ title: '3 × Lantern base', amounts: [['water', '710 g'], ['powder', '1 577 g']] }],
  steps: [{ instruction: 'Sift', detail: 'A little at a time.', until: 'until 3 min' }],
  moments: [['gloss goes', '20–43 min']],
  cautions: ['Never set plaster around a hand.'],
  blanks: ['water weighed', 'powder weighed', 'opened at'],
  ...over,
})
const pages = async (s: BenchSheet) => (await PDFDocument.load(await benchSheetPdf(s))).getPageCount()

/** Letters of other scripts, none, too many, and what a paste brings along. */
const NAMES = ['Bärenmaske', '石膏', '🙂 two', '', 'x'.repeat(500), 'two\nlines\tand a tab', 'bell\u0007 \u0085 \uD83D cut']

describe('a bench sheet as a PDF', () => {
  it('is one page of A4, named after its pour', async () => {
    const pdf = await PDFDocument.load(await benchSheetPdf(sheet()))
    expect(pdf.getTitle()).toBe('Bench sheet: Six lantern bases')
    const { width, height } = pdf.getPage(0).getSize()
    expect([width, height].map(x => Math.round(x / 72 * 25.4))).toEqual([210, 297])
    expect(pdf.getPageCount()).toBe(1)
  })

  it('goes on to further pages rather than off the paper', async () => {
    expect(
      await pages(
        sheet({
          batches: Array.from(
            { length: 30 },
            (_, i) => ({ title: `Bucket ${i + 1}`, amounts: [['water', '710 g'], ['powder', '1 577 g']] }),
          ),
        }),
      ),
    ).toBeGreaterThan(2)
    expect(await pages(sheet({ cautions: ['word '.repeat(3000)] }))).toBeGreaterThan(1)
  })

  it('draws every kind of mould, and a bucket with its lines, also where there is no room for them', async () => {
    const mouth = { shape: 'rectangular', width: 0.2, length: 0.12 } as const
    const lines = [{ at: 0.06, words: '60 mm' }, { at: 0.098, words: '98 mm' }]
    for (const form of FORM_IDS) {
      const moulds = [{ form, mouth, volume: { value: 8e-4 } }]
      const picture = { moulds, bucket: { vessel: { bottom: 0.1, top: 0.176, height: 0.125 }, lines } }
      const one = (i: number) => ({ title: `Bucket ${i}`, amounts: [['water', '710 g']] as const, picture })
      expect(await pages(sheet({ batches: Array.from({ length: 12 }, (_, i) => one(i)) }))).toBeGreaterThan(1)
      const pdf = await labelsPdf([{ title: form, lines: [], code: 'ABCD', picture: moulds[0] }], 'http://x/l/', form)
      // A picture is paths: the page says more than the same label without one.
      const bare = await labelsPdf([{ title: form, lines: [], code: 'ABCD' }], 'http://x/l/', form)
      expect(pdf.length).toBeGreaterThan(bare.length)
    }
  })

  it('prints whatever a pour is called', async () => {
    for (const title of NAMES) expect(await pages(sheet({ title }))).toBeGreaterThan(0)
  })

  it('and so do labels', async () => {
    for (const title of NAMES) {
      const pdf = await labelsPdf([{ title, lines: [title, title], code: 'ABCD' }], 'http://x/l/', title)
      expect((await PDFDocument.load(pdf)).getPageCount()).toBe(1)
    }
  })
})
