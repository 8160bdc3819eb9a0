import { PDFDocument, StandardFonts, type PDFFont, type PDFPage } from 'pdf-lib'
import type { BenchSheet } from '~core/formats/sheet'
import { INK, MM, plain, SOFT } from './print'

/** A bench sheet on A4: large enough to be read from where the bucket stands. */
const PAGE = { width: 210 * MM, height: 297 * MM }, EDGE = 13 * MM, WIDTH = PAGE.width - 2 * EDGE

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

export async function benchSheetPdf(sheet: BenchSheet): Promise<Uint8Array> {
  const pdf = await PDFDocument.create()
  pdf.setTitle(plain(`Bench sheet: ${sheet.title}`))
  pdf.setProducer('Nine Ripples')
  const [regular, bold] = await Promise.all(
    [StandardFonts.Helvetica, StandardFonts.HelveticaBold].map(f => pdf.embedFont(f)),
  ) as [PDFFont, PDFFont]
  let page: PDFPage = pdf.addPage([PAGE.width, PAGE.height]), y = PAGE.height - EDGE
  const room = (height: number) => {
    if (y - height >= EDGE) return
    page = pdf.addPage([PAGE.width, PAGE.height])
    y = PAGE.height - EDGE
  }
  const write = (
    text: string,
    { size = 10.5, font = regular, color = INK, x = 0, width = WIDTH - x }: {
      size?: number
      font?: PDFFont
      color?: typeof INK
      x?: number
      width?: number
    } = {},
  ) => {
    for (const line of wrapped(text, font, size, width)) {
      room(size * 1.35)
      y -= size * 1.35
      page.drawText(line, { x: EDGE + x, y, size, font, color })
    }
  }
  const head = (text: string) => {
    room(40)
    y -= 9
    write(text, { size: 12, font: bold })
    y -= 4
    page.drawLine({ start: { x: EDGE, y }, end: { x: EDGE + WIDTH, y }, thickness: 1, color: INK })
    y -= 2
  }
  write(sheet.title, { size: 22, font: bold })
  for (const fact of sheet.facts) write(fact, { color: SOFT })
  for (const batch of sheet.batches) {
    head(batch.title)
    for (const [word, value] of batch.amounts) {
      const large = word === 'water' || word === 'powder', size = large ? 15 : 10.5
      room(size * 1.4)
      const line = y
      write(value, { size, font: large ? bold : regular, x: 150 })
      page.drawText(plain(word), { x: EDGE, y: line - size * 1.35, size: 10.5, font: regular, color: SOFT })
    }
  }
  head('Step by step, after powder met water')
  for (const step of sheet.steps) {
    room(34)
    y -= 3
    page.drawRectangle({ x: EDGE, y: y - 13, width: 10, height: 10, borderColor: INK, borderWidth: 0.8 })
    if (step.until)
      page.drawText(plain(step.until), {
        x: EDGE + WIDTH - bold.widthOfTextAtSize(plain(step.until), 10.5),
        y: y - 14,
        size: 10.5,
        font: bold,
        color: INK,
      })
    write(step.instruction, { size: 11.5, font: bold, x: 18, width: WIDTH - 130 })
    write(step.detail, { size: 9.5, color: SOFT, x: 18 })
  }
  head('Then')
  for (const [word, range] of sheet.moments) {
    const line = y
    write(range, { font: bold, x: 150 })
    page.drawText(plain(word), { x: EDGE, y: line - 10.5 * 1.35, size: 10.5, font: regular, color: SOFT })
  }
  head('What happened')
  const half = WIDTH / 2
  for (let i = 0; i < sheet.blanks.length; i += 2) {
    room(22)
    y -= 19
    for (const [k, blank] of sheet.blanks.slice(i, i + 2).entries()) {
      page.drawText(plain(blank), { x: EDGE + k * half, y, size: 9.5, font: regular, color: SOFT })
      page.drawLine({
        start: { x: EDGE + k * half + 110, y: y - 2 },
        end: { x: EDGE + (k + 1) * half - 12, y: y - 2 },
        thickness: 0.6,
        color: SOFT,
      })
    }
  }
  head('Take care')
  for (const caution of sheet.cautions) write(caution, { size: 9.5 })
  return pdf.save()
}
