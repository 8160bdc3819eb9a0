/** JPEG as it is kept: its picture and nothing else. Marker codes from the standard (ITU-T T.81, table B.1). */

const SOI = 0xD8, EOI = 0xD9, SOS = 0xDA, COMMENT = 0xFE, APP0 = 0xE0, APP14 = 0xEE, APP15 = 0xEF

/** Frame headers carry the size: C0 to CF but for the three that are tables. */
const isFrame = (marker: number) =>
  marker >= 0xC0 && marker <= 0xCF && marker !== 0xC4 && marker !== 0xC8 && marker !== 0xCC

/**
 * Leaves out comments and everything that cameras and programs add: place, time, owner, previews (APP1 to APP15 but for
 * APP14, which says how colours are
 * stored), and whatever follows the picture.
 * @returns undefined when the bytes are no whole JPEG.
 */
export function cleanJpeg(
  bytes: Uint8Array,
): { readonly bytes: Uint8Array, readonly width: number, readonly height: number } | undefined {
  if (bytes.length < 4 || bytes[0] !== 0xFF || bytes[1] !== SOI) return undefined
  const kept: Uint8Array[] = [bytes.subarray(0, 2)]
  let width = 0, height = 0
  for (let at = 2; at + 4 <= bytes.length;) {
    if (bytes[at] !== 0xFF) return undefined
    const marker = bytes[at + 1]!
    if (marker === 0xFF) {
      at++
      continue
    }
    if (marker === EOI) return undefined
    const length = bytes[at + 2]! << 8 | bytes[at + 3]!, end = at + 2 + length
    if (length < 2 || end > bytes.length) return undefined
    if (isFrame(marker) && length >= 7) {
      height = bytes[at + 5]! << 8 | bytes[at + 6]!
      width = bytes[at + 7]! << 8 | bytes[at + 8]!
    }
    if (marker === SOS) {
      const stop = endOfPicture(bytes, end)
      if (stop === -1 || width === 0 || height === 0) return undefined
      kept.push(bytes.subarray(at, stop))
      return { bytes: Buffer.concat(kept), width, height }
    }
    const added = marker === COMMENT || (marker > APP0 && marker <= APP15 && marker !== APP14)
    if (!added) kept.push(bytes.subarray(at, end))
    at = end
  }
  return undefined
}

/** Just after the end marker; the scans between hold no FF D9. */
function endOfPicture(bytes: Uint8Array, from: number): number {
  for (let at = from; at + 1 < bytes.length; at++) if (bytes[at] === 0xFF && bytes[at + 1] === EOI) return at + 2
  return -1
}
