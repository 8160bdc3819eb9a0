import { PDFDocument, StandardFonts, type PDFFont, type PDFPage } from 'pdf-lib'
import type { BenchSheet, SheetPicture } from '~core/formats/sheet'
import { drawBucket, drawMark, drawMould } from './drawn'
import { INK, MM, plain, SOFT } from './print'

/** A bench sheet on A4: large enough to be read from where the bucket stands. */
const PAGE = { width: 210 * MM, height: 297 * MM }, EDGE = 13 * MM, WIDTH = PAGE.width - 2 * EDGE
/** Of plain text, points; a line is so many times as high. */
const SIZE = 10.5, LINE = 1.35, MOST_DRAWN = 3

function wrapped(text: string, font: PDFFont, size: number, width: number): string[] {
  const lines: string[] = []
  let line = ''
  for (const word of plain(text).split(' ')) {
    const longer = line ? `${line} ${word}` : word
    if (line && font.widthOfTextAtSize(longer, size) > width) {
      lines.push(line)
      line = word
    }
    else line = longer
  }
  return line ? [...lines, line] : lines
}

interface Look {
  readonly size?: number
  readonly font?: PDFFont
  readonly color?: typeof INK
  readonly x?: number
  readonly width?: number
}

/** Writes down the page, and goes on to the next where there is no room. */
class Writer {
  private page: PDFPage
  private y = PAGE.height - EDGE

  constructor(private readonly pdf: PDFDocument, readonly regular: PDFFont, readonly bold: PDFFont) {
    this.page = pdf.addPage([PAGE.width, PAGE.height])
  }

  room(height: number): void {
    if (this.y - height >= EDGE) return
    this.page = this.pdf.addPage([PAGE.width, PAGE.height])
    this.y = PAGE.height - EDGE
  }

  down(by: number): void {
    this.y -= by
  }

  write(text: string, { size = SIZE, font = this.regular, color = INK, x = 0, width = WIDTH - x }: Look = {}): void {
    for (const line of wrapped(text, font, size, width)) {
      this.room(size * LINE)
      this.down(size * LINE)
      this.page.drawText(line, { x: EDGE + x, y: this.y, size, font, color })
    }
  }

  /** Beside what is written, without going down. @param below how far under the last line, points */
  beside(text: string, below: number, { x = 0, size = SIZE, font = this.regular, color = SOFT }: Look = {}): void {
    this.page.drawText(plain(text), { x: EDGE + x, y: this.y - below, size, font, color })
  }

  /** A word, and what it stands for in the next column. */
  pair(word: string, value: string, look: Look): void {
    const size = look.size ?? SIZE
    this.room(size * 1.4)
    const line = this.y
    this.write(value, { ...look, x: 150 })
    this.page.drawText(plain(word), { x: EDGE, y: line - size * LINE, size: SIZE, font: this.regular, color: SOFT })
  }

  rule(from: number, to: number, below: number, thickness: number, color: typeof INK): void {
    const y = this.y - below
    this.page.drawLine({ start: { x: EDGE + from, y }, end: { x: EDGE + to, y }, thickness, color })
  }

  box(): void {
    this.page.drawRectangle({ x: EDGE, y: this.y - 13, width: 10, height: 10, borderColor: INK, borderWidth: 0.8 })
  }

  /** On the right, from here down, without going down. @returns how far it reaches down, points */
  picture({ bucket, moulds }: SheetPicture): number {
    const size = 62, right = EDGE + WIDTH
    if (bucket) drawBucket(this.page, bucket, right - size - 40, this.y - 8, size, this.bold)
    moulds.slice(0, MOST_DRAWN).forEach((mould, i) =>
      drawMould(this.page, mould, right - (bucket ? size + 60 : 0) - (i + 1) * 52, this.y - 22, 46))
    return bucket || moulds.length > 0 ? size + 14 : 0
  }

  mark(size: number): void {
    drawMark(this.page, EDGE + WIDTH - size, this.y, size)
  }

  get place(): number {
    return this.y
  }

  head(text: string): void {
    this.room(40)
    this.down(9)
    this.write(text, { size: 12, font: this.bold })
    this.down(4)
    this.rule(0, WIDTH, 0, 1, INK)
    this.down(2)
  }
}

function writeBatches(w: Writer, { batches }: BenchSheet): void {
  for (const batch of batches) {
    w.room(130)
    w.head(batch.title)
    const top = w.place, tall = batch.picture ? w.picture(batch.picture) : 0
    for (const [word, value] of batch.amounts) {
      const large = word === 'water' || word === 'powder'
      w.pair(word, value, large ? { size: 15, font: w.bold } : {})
    }
    // Not where the amounts went on to the next page.
    if (w.place <= top) w.down(Math.max(0, w.place - (top - tall)))
  }
}

function writeSteps(w: Writer, { steps }: BenchSheet): void {
  w.head('Step by step, after powder met water')
  for (const step of steps) {
    w.room(34)
    w.down(3)
    w.box()
    const wide = w.bold.widthOfTextAtSize(plain(step.until), SIZE)
    if (step.until) w.beside(step.until, 14, { x: WIDTH - wide, font: w.bold, color: INK })
    w.write(step.instruction, { size: 11.5, font: w.bold, x: 18, width: WIDTH - 130 })
    w.write(step.detail, { size: 9.5, color: SOFT, x: 18 })
  }
}

/** Two blanks in a line, to be filled in by hand. */
function writeBlanks(w: Writer, { blanks }: BenchSheet): void {
  w.head('What happened')
  const half = WIDTH / 2
  for (let i = 0; i < blanks.length; i += 2) {
    w.room(22)
    w.down(19)
    for (const [k, blank] of blanks.slice(i, i + 2).entries()) {
      w.beside(blank, 0, { x: k * half, size: 9.5 })
      w.rule(k * half + 110, (k + 1) * half - 12, 2, 0.6, SOFT)
    }
  }
}

/** A plan on paper, A4. */
export async function benchSheetPdf(sheet: BenchSheet): Promise<Uint8Array> {
  const pdf = await PDFDocument.create()
  pdf.setTitle(plain(`Bench sheet: ${sheet.title}`))
  pdf.setProducer('Nine Ripples')
  const [regular, bold] = await Promise.all(
    [StandardFonts.Helvetica, StandardFonts.HelveticaBold].map(f => pdf.embedFont(f)),
  ) as [PDFFont, PDFFont]
  const w = new Writer(pdf, regular, bold)
  w.mark(38)
  w.write(sheet.title, { size: 22, font: bold, width: WIDTH - 50 })
  for (const fact of sheet.facts) w.write(fact, { color: SOFT })
  writeBatches(w, sheet)
  writeSteps(w, sheet)
  w.head('Then')
  for (const [word, range] of sheet.moments) w.pair(word, range, { font: bold })
  writeBlanks(w, sheet)
  w.head('Take care')
  for (const caution of sheet.cautions) w.write(caution, { size: 9.5 })
  return pdf.save()
}
