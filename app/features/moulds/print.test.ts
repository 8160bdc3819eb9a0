import { readFileSync } from 'node:fs'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { MouldBody } from '~contract/library'
import { withExif } from '../../../tests/exif'
import { useLibrary } from '../../sync/library'
import { usePrint } from './print'

const photos = vi.hoisted(() => ({ kept: [] as { id: string, mould: string }[], refuse: false }))
vi.mock('~/sync/photos', async () => {
  const { Refused: No } = await import('~/sync/api')
  return {
    // A picture of a thousand pixels a side; anything else is none.
    shrunk: async (file: Blob) => {
      if (file.size === 0) throw new No('This is no picture that the browser can read.', 0)
      return { blob: file, width: 1000, height: 1000 }
    },
    keepPhoto: async (id: string, { mould }: { mould: string }) => {
      if (photos.refuse) throw new No('The server could not take this photo.', 500)
      photos.kept.push({ id, mould })
    },
    photosOf: async ({ mould }: { mould: string }) =>
      photos.kept.filter(p => p.mould === mould).map(p => ({ ...p, width: 1000, height: 1000 })),
    photoAddress: (id: string) => `/api/photos/${id}`,
  }
})

let saved: { id: string, body: MouldBody, revision: number }[]
beforeEach(() => {
  setActivePinia(createPinia())
  photos.kept.length = 0
  photos.refuse = false
  saved = []
  URL.createObjectURL = () => 'blob:x'
  URL.revokeObjectURL = () => {}
  const library = useLibrary()
  library.save = async (_kind, id, body, from) => {
    const revision = from?.revision ?? 0
    saved.push({ id, body: body as MouldBody, revision })
    library.told.mould = [{ id, kind: 'mould', body: body as MouldBody, revision: revision + 1 }]
  }
})
const photo = new Blob(['picture'])
/** A ruler of 200 mm over 400 pixels: half a millimetre a pixel. */
async function taken() {
  const print = usePrint()
  await print.take(photo)
  print.move(-1, 0, { x: 100, y: 900 })
  print.move(-1, 1, { x: 500, y: 900 })
  return print
}

describe('a print in hand', () => {
  it('a photo begins with a ruler and one length; what is no picture is said and leaves what was there', async () => {
    const print = await taken()
    print.move(0, 0, { x: 100, y: 100 })
    print.move(0, 1, { x: 668, y: 100 })
    expect(print.measured[0]!.value).toBeCloseTo(0.284, 9)
    await print.take(new Blob([]))
    expect(print.trouble).toMatch(/^This is no picture/)
    expect(print.measured[0]!.value).toBeCloseTo(0.284, 9)
  })

  it('one outline is the print, the ring 40 mm around it; with two the larger is the ring', async () => {
    const print = await taken()
    print.add('outline')
    for (const [i, [x, y]] of ([[200, 200], [600, 200], [600, 400], [200, 400]] as const).entries())
      print.move(1, i, { x, y })
    // By hand: 200 x 100 mm, 0.02 m2; its side as a square 141.4 mm and 80 more.
    expect(print.gauge).toMatchObject({ how: 'dam', printDepth: 0.015, cover: 0.025 })
    expect(print.gauge).toHaveProperty('printArea', expect.closeTo(0.02, 6))
    expect(print.gauge).toHaveProperty('area', expect.closeTo((Math.sqrt(0.02) + 0.08) ** 2, 6))
    print.add('outline')
    for (const [i, [x, y]] of ([[100, 100], [700, 100], [700, 500], [100, 500]] as const).entries())
      print.move(2, i, { x, y })
    expect(print.gauge).toHaveProperty('area', expect.closeTo(0.06, 6))
    expect(print.gauge).toHaveProperty('printArea', expect.closeTo(0.02, 6))
  })

  it('one more corner comes into the side it is nearest to, or into the longest', async () => {
    const print = await taken()
    print.add('outline')
    for (const [i, [x, y]] of ([[200, 200], [600, 200], [600, 400], [200, 400]] as const).entries())
      print.move(1, i, { x, y })
    print.addCorner(1, { x: 610, y: 300 })
    expect(print.marks[1]!.points).toEqual([{ x: 200, y: 200 }, { x: 600, y: 200 }, { x: 610, y: 300 }, {
      x: 600,
      y: 400,
    }, { x: 200, y: 400 }])
    print.addCorner(1)
    expect(print.marks[1]!.points[1]).toEqual({ x: 400, y: 200 })
  })

  it('is kept as a mould in the ground with its marks; a photo that did not go through goes with the next press, the mould only once', async () => {
    const print = await taken()
    await print.save()
    expect([print.trouble, saved]).toEqual(['Give it a name.', []])
    Object.assign(print.facts, { name: 'Heel', place: 'Towpath', believed: 'a boot' })
    photos.refuse = true
    await print.save()
    expect([print.trouble, print.kept]).toEqual(['The server could not take this photo.', undefined])
    photos.refuse = false
    await print.save()
    expect(print.kept).toBe(saved[0]!.id)
    expect(saved.map(s => [s.id, s.revision])).toEqual([[saved[0]!.id, 0], [saved[0]!.id, 1]])
    expect(photos.kept).toHaveLength(1)
    expect(saved[1]!.body).toMatchObject({
      name: 'Heel',
      material: 'ground',
      kind: 'print',
      impression: { place: 'Towpath', believed: 'a boot', photo: { id: photos.kept[0]!.id } },
    })

    // Another press keeps changes and sends no photo again; opened anew it stands as it was.
    await print.save()
    expect(photos.kept).toHaveLength(1)
    const marks = JSON.parse(JSON.stringify(print.marks)) as unknown
    await print.open(saved[0]!.id)
    expect([print.facts.name, print.picture!.url, JSON.parse(JSON.stringify(print.marks))]).toEqual([
      'Heel',
      `/api/photos/${photos.kept[0]!.id}`,
      marks,
    ])
    photos.kept.length = 0
    await print.open(saved[0]!.id)
    expect(print.trouble).toMatch(/^The photo of this print was taken away/)
  })

  it('another photo of the same print keeps what is known of it; after one that was kept begins the next', async () => {
    const print = await taken()
    Object.assign(print.facts, { name: 'Heel', place: 'Towpath' })
    print.depth = 0.03
    await print.take(photo)
    expect([print.facts.name, print.depth]).toEqual(['Heel', 0.03])
    await print.save()
    const first = print.kept!
    await print.open(first)
    await print.take(photo)
    await print.save()
    expect([saved.map(s => s.id), saved.at(-1)!.body.impression!.photo!.id]).toEqual([
      [first, first],
      photos.kept[1]!.id,
    ])
    await print.take(photo)
    expect([print.facts.name, print.item]).toEqual(['', undefined])
  })

  it('what the camera wrote is taken over only when it is asked for', async () => {
    const print = usePrint()
    await print.take(
      new Blob([
        new Uint8Array(
          withExif(readFileSync('public/samples/print.jpg'), {
            moment: '2026:11:12 10:03:04',
            latitude: -33.25,
            longitude: 151.5,
          }),
        ),
      ]),
    )
    print.facts.place = 'The dunes'
    expect(print.facts.on).not.toBe('2026-11-12')
    print.takeOver()
    expect([print.facts.place, print.facts.on, print.taken]).toEqual([
      'The dunes, 33.2500° S, 151.5000° E',
      '2026-11-12',
      {},
    ])
  })

  it('nothing is kept while the scale does not stand', async () => {
    const print = await taken()
    print.facts.name = 'Heel'
    print.move(-1, 1, { x: 101, y: 900 })
    await print.save()
    expect([print.trouble, saved]).toEqual([expect.stringMatching(/too near each other/), []])
  })
})
