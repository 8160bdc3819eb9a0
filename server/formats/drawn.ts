import { concatTransformationMatrix, popGraphicsState, pushGraphicsState, rgb, type PDFFont, type PDFPage } from 'pdf-lib'
import { insideBetween } from '~core/drawing/bucket'
import { MARK, placeOutline } from '~core/drawing/picture'
import { lookOf, type Drawable } from '~core/drawing/profile'
import type { SheetPicture } from '~core/formats/sheet'
import { INK, plain } from './print'

/** The drawing kit on paper: the same paths as on the screens, in ink and one blue. Places are points, up the page. */
const WATER = rgb(0.1, 0.35, 0.48), WATER_SOFT = rgb(0.85, 0.92, 0.95), PAPER = rgb(1, 1, 1)

/** The mark, its upper left corner at a place. Rings are laid over each other, since paper knows no even-odd fill. */
export function drawMark(page: PDFPage, x: number, y: number, size: number): void {
  const laid = { x, y, scale: size / 128 }
  MARK.rings.forEach((d, i) => page.drawSvgPath(d, { ...laid, color: i % 2 ? PAPER : INK }))
  page.drawSvgPath(MARK.gap, { ...laid, color: PAPER })
  page.drawSvgPath(MARK.stream, { ...laid, color: INK })
}

/** A mould from above, or as its cast stands, in a box whose upper left corner is at a place. */
export function drawMould(page: PDFPage, mould: Drawable, x: number, y: number, size: number): void {
  const form = lookOf(mould), { x: left, y: top, w, h } = placeOutline(mould, size, size, 1)
  page.pushOperators(pushGraphicsState(), concatTransformationMatrix(w / 100, 0, 0, h / 100, x + left, y - top))
  const wide = 100 / Math.max(w, h)
  page.drawSvgPath(form.edge, { x: 0, y: 0, borderColor: INK, borderWidth: 1.1 * wide })
  for (const line of form.lines) page.drawSvgPath(line, { x: 0, y: 0, borderColor: INK, borderWidth: 0.6 * wide })
  page.pushOperators(popGraphicsState())
}

/** A bucket cut through, with the lines to reach, each with its height. */
export function drawBucket(
  page: PDFPage, { vessel, lines }: NonNullable<SheetPicture['bucket']>, x: number, y: number, size: number, font: PDFFont,
): void {
  const scale = size / Math.max(vessel.top, vessel.bottom, vessel.height)
  const at = (p: { x: number, y: number }) => `${size / 2 + p.x * scale} ${size - p.y * scale}`
  const part = (low: number, high: number) => insideBetween(vessel, low, high).map(at)
  const [water] = lines
  if (lines.length > 1 && water)
    page.drawSvgPath(`M${part(0, water.at).join('L')}Z`, { x, y, color: WATER_SOFT })
  for (const [i, { at: height, words }] of lines.entries()) {
    const [, left, right] = part(0, height), isWater = lines.length > 1 && i === 0
    page.drawSvgPath(`M${left}L${right}`, {
      x, y, borderColor: isWater ? WATER : INK, borderWidth: 1.2, borderDashArray: isWater ? undefined : [4, 2],
    })
    page.drawText(plain(words), {
      x: x + size + 4, y: y - size + height * scale - 3, size: 8.5, font, color: isWater ? WATER : INK,
    })
  }
  const [a, b, c, d] = part(0, vessel.height)
  page.drawSvgPath(`M${[b, a, d, c].join('L')}`, { x, y, borderColor: INK, borderWidth: 2 })
}
