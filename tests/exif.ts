/**
 * A JPEG with what a camera writes beside a picture: the moment, and where it stood (Exif 2.3, as far as it is needed
 * here; the layout is from memory).
 */
export function withExif(
  jpeg: Buffer,
  { moment, latitude, longitude }: { readonly moment: string, readonly latitude: number, readonly longitude: number },
): Buffer {
  const tiff = Buffer.alloc(248), words = (text: string) => Buffer.from(`${text}\0`, 'latin1')
  tiff.write('II*\0', 'latin1')
  /** A list of fields: tag, type (2 words, 4 whole number, 5 fractions), count, and the value or where it stands. */
  function list(at: number, fields: readonly (readonly [number, number, number, number | Buffer])[]): void {
    tiff.writeUInt16LE(fields.length, at)
    for (const [i, [tag, type, count, value]] of fields.entries()) {
      const field = at + 2 + 12 * i
      tiff.writeUInt16LE(tag, field)
      tiff.writeUInt16LE(type, field + 2)
      tiff.writeUInt32LE(count, field + 4)
      if (typeof value === 'number') tiff.writeUInt32LE(value, field + 8)
      else value.copy(tiff, field + 8)
    }
  }
  function degrees(at: number, value: number): void {
    const whole = Math.floor(value),
      minutes = Math.floor((value - whole) * 60),
      seconds = ((value - whole) * 60 - minutes) * 60
    for (const [i, part] of [whole, 1, minutes, 1, Math.round(seconds * 1000), 1000].entries())
      tiff.writeUInt32LE(part, at + 4 * i)
  }
  tiff.writeUInt32LE(8, 4)
  list(8, [[0x8769, 4, 1, 60], [0x8825, 4, 1, 120]])
  list(60, [[0x9003, 2, 20, 90]])
  words(moment).copy(tiff, 90)
  list(120, [[1, 2, 2, words(latitude < 0 ? 'S' : 'N')], [2, 5, 3, 200], [3, 2, 2, words(longitude < 0 ? 'W' : 'E')], [
    4,
    5,
    3,
    224,
  ]])
  degrees(200, Math.abs(latitude))
  degrees(224, Math.abs(longitude))
  const app1 = Buffer.concat([words('Exif\0'), tiff]), head = Buffer.from([0xFF, 0xE1, 0, 0])
  head.writeUInt16BE(app1.length + 2, 2)
  return Buffer.concat([jpeg.subarray(0, 2), head, app1, jpeg.subarray(2)])
}
