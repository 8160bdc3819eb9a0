import { bedOf, contentsOf, levelOf, LUMP_DENSITY, lumpsOf, type Bucket, type Place } from '~core/practice/bucket'
import { uniform } from '~core/practice/noise'
import { CELLS, GRID } from '~core/practice/surface'
import { LUMP_SIZES } from '~core/practice/types'

/** A bucket drawn on a canvas: from above, and cut through the middle. Only what eyes would see. */

export interface Colours {
  readonly water: string
  readonly bed: string
  readonly dry: string
  /** The same in the cut, where it stands before what is light behind it; and that. */
  readonly heap: string
  readonly behind: string
  readonly ink: string
  readonly mix: string
  readonly rim: string
  /** Family of the letters. */
  readonly letters: string
}
type Rgb = readonly [number, number, number]
function rgb(hex: string): Rgb {
  const n = parseInt(hex.trim().replace('#', ''), 16)
  return [n >> 16, n >> 8 & 255, n & 255]
}
const blend = (a: Rgb, b: Rgb, share: number): Rgb =>
  [0, 1, 2].map(i => a[i]! + (b[i]! - a[i]!) * Math.max(0, Math.min(1, share))) as unknown as Rgb

/** Clear water over the bed of each cell, m: below nothing where an island stands out of it. */
function clearOver(place: Place, b: Bucket): (c: number) => number {
  const level = levelOf(place, b), deep = lumpsOf(b) / LUMP_DENSITY / place.area
  return c => level - b.bed[c]! * place.volume / place.bedShare - deep
}
/** Powder so thick that nothing shows through, kg/m2; and water so deep that the bed is not seen, m. */
const COVERS = 1.2, DEEP = 0.04
/** A bed of so little is not seen, kg/m2. */
const BED_SEEN = 3

export interface Look { readonly place: Place, readonly b: Bucket, readonly stirred: boolean, readonly gloss: number }

export function drawFromAbove(ctx: CanvasRenderingContext2D, size: number, look: Look, of: Colours): void {
  const { place, b, stirred } = look
  const middle = size / 2, radius = size / 2 - 8, water = rgb(of.water), bed = rgb(of.bed), dry = rgb(of.dry)
  ctx.clearRect(0, 0, size, size)
  ctx.save()
  ctx.beginPath()
  ctx.arc(middle, middle, radius - 6, 0, 2 * Math.PI)
  ctx.clip()
  const empty = b.water > 0 ? of.water : of.rim
  ctx.fillStyle = stirred ? of.mix : empty
  ctx.fillRect(0, 0, size, size)
  if (stirred) drawMix(ctx, size, look, of)
  else if (b.water > 0) {
    const picture = new ImageData(GRID, GRID), over = clearOver(place, b)
    for (const [c, [i, j]] of CELLS.entries()) {
      const through = Math.min(1, b.bed[c]! / BED_SEEN) * (1 - Math.max(0, Math.min(0.75, over(c) / DEEP)))
      const colour = blend(blend(water, bed, through), dry, b.dry[c]! / COVERS), at = 4 * (j * GRID + i)
      picture.data.set([...colour, 255], at)
    }
    spread(picture)
    const small = new OffscreenCanvas(GRID, GRID)
    small.getContext('2d')!.putImageData(picture, 0, 0)
    ctx.imageSmoothingEnabled = true
    ctx.imageSmoothingQuality = 'high'
    ctx.drawImage(small, middle - radius, middle - radius, 2 * radius, 2 * radius)
    dots(ctx, middle, radius, b, of)
  }
  ctx.restore()
  ctx.lineWidth = 6
  ctx.strokeStyle = of.ink
  ctx.beginPath()
  ctx.arc(middle, middle, radius - 3, 0, 2 * Math.PI)
  ctx.stroke()
}

/** Cells beyond the rim take the colour of the nearest one inside, so that it does not fade there. */
function spread(picture: ImageData): void {
  const { data } = picture
  for (let j = 0; j < GRID; j++) {
    for (let i = 0; i < GRID; i++) {
      const at = 4 * (j * GRID + i)
      if (data[at + 3]) continue
      const toMiddle = (n: number) => n + Math.sign(GRID / 2 - n - 0.5) * Math.ceil(Math.abs(GRID / 2 - n - 0.5) * 0.3)
      const from = 4 * (toMiddle(j) * GRID + toMiddle(i))
      data.set(data.slice(from, from + 4), at)
    }
  }
}

/** Dry powder is dotted, so that it is told from light water without its colour. */
function dots(ctx: CanvasRenderingContext2D, middle: number, radius: number, b: Bucket, of: Colours): void {
  ctx.fillStyle = of.bed
  for (const [c, [i, j]] of CELLS.entries()) {
    if (b.dry[c]! < 0.5 || (i * 7 + j * 13) % 3 > 0) continue
    const at = (n: number, seed: number) => middle + ((n + uniform(seed, 'dot', c)) / GRID * 2 - 1) * radius
    const x = at(i, 1), y = at(j, 2)
    ctx.beginPath()
    ctx.arc(x, y, 1.6, 0, 2 * Math.PI)
    ctx.fill()
  }
}

/** One colour, lumps where they float up, and a gloss that goes. */
function drawMix(ctx: CanvasRenderingContext2D, size: number, { place, b, gloss }: Look, of: Colours): void {
  const middle = size / 2, there = Math.max(1e-6, contentsOf(place, b))
  ctx.fillStyle = of.dry
  for (const [k, kg] of b.lumps.entries()) {
    const d = LUMP_SIZES[k]!, number = kg / (LUMP_DENSITY * Math.PI / 6 * d ** 3)
    const shown = Math.min(60, number / there * place.area * d * 2)
    for (let n = 0; n < shown; n++) {
      const r = Math.sqrt(uniform(k + 3, 'lump', n)) * (middle - 24), a = 6.283 * uniform(k + 6, 'lump', n)
      ctx.beginPath()
      ctx.arc(middle + r * Math.cos(a), middle + r * Math.sin(a), Math.max(2, d * 900), 0, 2 * Math.PI)
      ctx.fill()
    }
  }
  ctx.strokeStyle = of.dry
  ctx.lineWidth = 9
  ctx.lineCap = 'round'
  ctx.globalAlpha = 0.75 * Math.max(0, gloss)
  ctx.beginPath()
  ctx.arc(middle, middle, middle - 44, -2.6, -1.9)
  ctx.stroke()
  ctx.globalAlpha = 1
}

/** Cut through the middle: the bed, the water over it, and what lies dry on top. */
export function drawCut(
  ctx: CanvasRenderingContext2D, width: number, height: number, { place, b, stirred }: Look, of: Colours,
): void {
  const top = 34, floor = height - 12, left = 40, right = width - 40, across = right - left
  // As tall as it is wide: a little in a large bucket looks like a little.
  const scale = across / place.setup.vessel.width
  ctx.clearRect(0, 0, width, height)
  const level = stirred ? contentsOf(place, b) / place.area : levelOf(place, b)
  const y = (metres: number) => floor - metres * scale
  ctx.fillStyle = stirred ? of.mix : of.water
  ctx.fillRect(left, y(level), across, floor - y(level))
  if (!stirred && b.water > 0) {
    const row = GRID / 2, cells = CELLS.flatMap(([i, j], c) => j === row ? [{ i, c }] : [])
    const shift = bedOf(place, b) > 0 ? lumpsOf(b) / LUMP_DENSITY / place.area : 0
    const loose = (place.powder.bulkLoose.low + place.powder.bulkLoose.high) / 2
    for (const { i, c } of cells) {
      const x = left + i / GRID * across, w = across / GRID + 0.5
      const bed = b.bed[c]! * place.volume / place.bedShare + shift
      ctx.fillStyle = of.bed
      ctx.fillRect(x, y(bed), w, floor - y(bed))
      const dry = b.dry[c]! / loose
      if (dry < 0.0002) continue
      const on = y(Math.max(level, bed) + dry)
      ctx.fillStyle = of.heap
      ctx.fillRect(x, on, w, Math.max(2, dry * scale))
      // An edge, so that it is told from the wall behind.
      ctx.fillStyle = of.bed
      ctx.fillRect(x, on - 2, w, 2)
    }
  }
  ctx.strokeStyle = of.ink
  ctx.lineWidth = 5
  ctx.beginPath()
  ctx.moveTo(left - 12, top - 6)
  ctx.lineTo(left - 2, top - 6)
  ctx.lineTo(left - 2, floor + 3)
  ctx.lineTo(right + 2, floor + 3)
  ctx.lineTo(right + 2, top - 6)
  ctx.lineTo(right + 12, top - 6)
  ctx.stroke()
  ctx.font = `650 16px ${of.letters}`
  ctx.fillStyle = of.ink
  ctx.textAlign = 'right'
  if (level <= 0.002) return
  const told = `${Math.round(1000 * level)} mm`, at = [right - 10, Math.max(20, y(level) - 8)] as const
  ctx.strokeStyle = of.behind
  ctx.strokeText(told, ...at)
  ctx.fillText(told, ...at)
}
