import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { withExif } from '../../../tests/exif'
import { photoFacts } from './photo-facts'

const plain = readFileSync('public/samples/print.jpg')
const of = (bytes: Buffer) => photoFacts(new Blob([new Uint8Array(bytes)]))

describe('what a camera wrote beside a picture', () => {
  it('is its day and its place, in any quarter of the earth', async () => {
    expect(await of(withExif(plain, { moment: '2026:11:12 23:50:04', latitude: 54.9784, longitude: -1.613 }))).toEqual({
      on: '2026-11-12',
      at: { latitude: expect.closeTo(54.9784, 6), longitude: expect.closeTo(-1.613, 6) },
    })
    expect((await of(withExif(plain, { moment: '2026:02:01 00:10:00', latitude: -33.25, longitude: 151.5 }))).at)
      .toEqual({ latitude: expect.closeTo(-33.25, 6), longitude: expect.closeTo(151.5, 6) })
  })

  it('is nothing where nothing was written, a camera did not know its place, or the file is none', async () => {
    expect(await of(plain)).toEqual({})
    expect(await of(withExif(plain, { moment: 'not set', latitude: 0, longitude: 0 }))).toEqual({})
    for (const moment of ['0000:00:00 00:00:00', '2026:02:31 10:00:00', '2026:13:01 10:00:00'])
      expect(await of(withExif(plain, { moment, latitude: 0, longitude: 0 })), moment).toEqual({})
    expect(await of(Buffer.from('no picture'))).toEqual({})
    expect(await of(withExif(plain, { moment: '2026:11:12 10:00:00', latitude: 54, longitude: 1 }).subarray(0, 60)))
      .toEqual({})
  })
})
