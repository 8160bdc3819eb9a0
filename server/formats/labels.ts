import { PDFDocument, StandardFonts, type PDFFont, type PDFPage } from 'pdf-lib'
import QR from 'qrcode'
import type { Label } from '~core/formats/labels'
import { drawMould } from './drawn'
import { INK, MM, plain, SOFT } from './print'

/** Labels on a sheet of A4: three by eight, 70 by 37 mm, as they are sold everywhere. */
const SHEET = { width: 210 * MM, height: 297 * MM, across: 3, down: 8 }
const CELL = { width: 70 * MM, height: SHEET.height / 8 }, PAD = 4.5 * MM, CODE = 19 * MM

/** Shortened with dots until it fits. */
function fitted(text: string, font: PDFFont, size: number, width: number): string {
  let words = plain(text)
  while (words.length > 1 && font.widthOfTextAtSize(words, size) > width) words = `${words.slice(0, -2)}…`
  return words
}

/** Small letters that are still read at arm's length; so many lines stand above the code. */
const SMALL = 7.2, MOST_LINES = 7
/** A line broken between words where it does not fit: nothing that has to be weighed is cut off. */
function wrapped(text: string, font: PDFFont, size: number, width: number): string[] {
  const lines: string[] = []
  for (const word of plain(text).split(' ')) {
    const longer = lines.length > 0 ? `${lines.at(-1)!} ${word}` : word
    if (lines.length > 0 && font.widthOfTextAtSize(longer, size) <= width) lines[lines.length - 1] = longer
    else lines.push(fitted(word, font, size, width))
  }
  return lines
}

function drawCode(page: PDFPage, text: string, x: number, y: number): void {
  const { modules } = QR.create(text, { errorCorrectionLevel: 'M' }), step = CODE / modules.size
  for (let row = 0; row < modules.size; row++) {
    for (let column = 0; column < modules.size; column++) {
      if (modules.get(row, column))
        page.drawRectangle({
          x: x + column * step,
          y: y + CODE - (row + 1) * step,
          width: step,
          height: step,
          color: INK,
        })
    }
  }
}
/** @param address of a label's page, to which its code is added. */
export async function labelsPdf(labels: readonly Label[], address: string, title: string): Promise<Uint8Array> {
  const pdf = await PDFDocument.create()
  pdf.setTitle(plain(title))
  pdf.setProducer('Nine Ripples')
  const [regular, bold, mono] = await Promise.all(
    [StandardFonts.Helvetica, StandardFonts.HelveticaBold, StandardFonts.CourierBold].map(f => pdf.embedFont(f)),
  )
  let page: PDFPage | undefined
  labels.forEach((label, i) => {
    const place = i % (SHEET.across * SHEET.down)
    if (place === 0) page = pdf.addPage([SHEET.width, SHEET.height])
    const x = place % SHEET.across * CELL.width + PAD,
      top = SHEET.height - Math.floor(place / SHEET.across) * CELL.height - PAD
    const width = CELL.width - 2 * PAD - CODE - 6
    page!.drawText(fitted(label.title, bold!, 11, width), { x, y: top - 10, size: 11, font: bold, color: INK })
    const lines = label.lines.flatMap((line, n) => wrapped(line, regular!, SMALL, width).map(words => ({ words, n })))
    lines.slice(0, MOST_LINES).forEach(({ words, n }, k) => {
      const last = k === MOST_LINES - 1 && lines.length > MOST_LINES
      page!.drawText(last ? fitted(`${words} …`, regular!, SMALL, width) : words, {
        x, y: top - 21 - k * 8.6, size: SMALL, font: regular, color: n === 0 ? SOFT : INK,
      })
    })
    page!.drawText(plain(label.code), { x, y: top - CELL.height + 2 * PAD + 1, size: 8, font: mono, color: INK })
    drawCode(page!, `${address}${label.code}`, x + width + 6, top - CODE)
    if (label.picture) drawMould(page!, label.picture, x + width + 8, top - CODE - 2, 26)
  })
  if (labels.length === 0) pdf.addPage([SHEET.width, SHEET.height])
  return pdf.save()
}
