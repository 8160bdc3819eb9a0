import { createHash, randomUUID } from 'node:crypto'
import sharp from 'sharp'
import { beforeAll, describe, expect, it } from 'vitest'
import { ask, ids, member, overHttp, product, viewer } from './over-http'

/** Models and photos over HTTP: what is kept of them, who may send them, what is refused. */
overHttp()

describe('models of moulds', () => {
  const bytes = (n: number, seed = 1) => Uint8Array.from({ length: n }, (_, i) => (i * 31 + seed) % 251)
  const put = (id: string, part: number, body: Uint8Array, cookie: string) =>
    fetch(`${product.url}/api/meshes/${id}/parts/${part}`, {
      method: 'PUT',
      headers: {
        'origin': product.url,
        'sec-fetch-site': 'same-origin',
        'content-type': 'application/octet-stream',
        cookie,
      },
      body: body as BodyInit,
    })
  const begin = (id: string, cookie: string, part = {}) =>
    ask(product, 'PUT', `meshes/${id}`, {
      cookie,
      body: { mould: ids.moulds.lantern, name: 'lantern.stl', unit: 'mm', triangles: 12, parts: 2, ...part },
    })
  const done = (id: string, cookie: string, sha256?: string) =>
    ask(product, 'POST', `meshes/${id}/done`, { cookie, body: { sha256 } })

  it('arrive in parts, are checked, take the place of the one before, and come back byte for byte', async () => {
    const first = randomUUID(), second = randomUUID(), parts = [bytes(900_000), bytes(1234, 7)]
    expect((await ask(product, 'GET', `meshes?mould=${ids.moulds.lantern}`, { cookie: viewer })).status).toBe(404)
    for (const id of [first, second]) {
      expect((await begin(id, member)).status).toBe(200)
      expect((await put(id, 0, parts[0]!, member)).status).toBe(200)
      expect((await done(id, member)).body.data?.sentence).toBe('The model did not arrive whole. Send it again.')
      expect((await put(id, 1, parts[1]!, member)).status).toBe(200)
      expect((await done(id, member, 'f'.repeat(64))).status).toBe(409)
      const sha256 = createHash('sha256').update(parts[0]!).update(parts[1]!).digest('hex')
      expect((await done(id, member, sha256)).body).toMatchObject({ id, sha256, bytes: 901_234 })
    }
    const { body } = await ask(product, 'GET', `meshes?mould=${ids.moulds.lantern}`, { cookie: viewer })
    expect(body).toMatchObject({ id: second, parts: 2 })
    const back = await fetch(`${product.url}/api/meshes/${second}/parts/1`, { headers: { cookie: viewer } })
    expect([back.headers.get('content-type'), new Uint8Array(await back.arrayBuffer())]).toEqual([
      'application/octet-stream',
      parts[1],
    ])
    expect((await put(second, 1, bytes(5), member)).status).toBe(404)
  })

  it('are for members to change, of a mould that exists, within limits said in words', async () => {
    const id = randomUUID()
    expect((await begin(id, viewer)).status).toBe(403)
    expect((await begin(id, member, { mould: randomUUID() })).status).toBe(404)
    expect((await begin(id, member, { triangles: 6_000_000 })).body.data?.sentence).toBe(
      'A model has at most five million triangles.',
    )
    expect((await begin(id, member, { parts: 5000 })).body.data?.sentence).toMatch(/^This model is too large to keep/)
    await begin(id, member)
    expect((await put(id, 0, bytes(900_001), member)).status).toBe(400)
    expect((await put(id, 2, bytes(10), member)).status).toBe(404)
    expect((await fetch(`${product.url}/api/meshes/${id}/parts/0`)).status).toBe(401)
  })
})

describe('photos of moulds', () => {
  const text = (words: string) => [...new TextEncoder().encode(words)]
  /** Red above blue as it was held: turned by a quarter in the file, with place and owner beside it and a tail. */
  async function camera(): Promise<Uint8Array> {
    const red = { create: { width: 40, height: 60, channels: 3, background: '#f00' } } as const
    const turned = await sharp({ create: { width: 80, height: 60, channels: 3, background: '#00f' } })
      .composite([{ input: red, left: 0, top: 0 }]).jpeg({ chromaSubsampling: '4:4:4' }).withMetadata({ orientation: 6 })
      .withExifMerge({ IFD0: { Copyright: 'owner' } }).toBuffer()
    return Buffer.concat([turned, Buffer.from('and a film')])
  }
  /** The same with another size in its frame (ITU-T T.81, B.2.2). */
  function claiming(bytes: Uint8Array, side: number): Uint8Array {
    const other = Buffer.from(bytes), frame = other.indexOf(Buffer.from([0xFF, 0xC0]))
    other.writeUInt16BE(side, frame + 5)
    other.writeUInt16BE(side, frame + 7)
    return other
  }
  let jpeg: Uint8Array
  beforeAll(async () => {
    jpeg = await camera()
  })
  const put = (id: string, body: Uint8Array, cookie: string, mould: string = ids.moulds.lantern, caption = 'Seam') =>
    fetch(`${product.url}/api/photos/${id}?mould=${mould}&caption=${caption}`, {
      method: 'PUT',
      headers: { 'origin': product.url, 'sec-fetch-site': 'same-origin', 'content-type': 'image/jpeg', cookie },
      body: body as BodyInit,
    })

  it('keep the picture and nothing that was written beside it, once however often they are sent, and go when told', async () => {
    const id = randomUUID()
    expect(Buffer.from(jpeg).toString('latin1')).toMatch(/Exif[^]*owner[^]*film$/)
    expect(await (await put(id, jpeg, member)).json()).toEqual({ id, width: 60, height: 80 })
    expect((await put(id, jpeg, member)).status).toBe(200)
    expect((await ask(product, 'GET', `photos?mould=${ids.moulds.lantern}`, { cookie: viewer })).body).toMatchObject([{
      id, caption: 'Seam', width: 60, height: 80,
    }])
    const back = await fetch(`${product.url}/api/photos/${id}`, { headers: { cookie: viewer } })
    expect(back.headers.get('vary')).toMatch(/cookie/i)
    expect([back.headers.get('content-type'), back.headers.get('x-content-type-options')]).toEqual(['image/jpeg', 'nosniff'])
    const kept = Buffer.from(await back.arrayBuffer())
    expect(kept.toString('latin1')).not.toMatch(/Exif|owner|film/)
    const { data, info } = await sharp(kept).raw().toBuffer({ resolveWithObject: true })
    const at = (x: number, y: number) => [...data.subarray(3 * (y * info.width + x), 3 * (y * info.width + x) + 3)]
    for (const [[x, y], [r, , b]] of [[[30, 10], at(30, 10)], [[30, 70], at(30, 70)]] as const)
      expect([x, y, r! > 200, b! > 200]).toEqual([x, y, y < 40, y > 40])
    expect((await ask(product, 'DELETE', `photos/${id}`, { cookie: viewer })).status).toBe(403)
    expect((await ask(product, 'DELETE', `photos/${id}`, { cookie: member })).status).toBe(200)
    expect((await ask(product, 'GET', `photos/${id}`, { cookie: member })).status).toBe(404)
  })

  it('are for members, of a mould that exists, and JPEG that is whole; anything else is refused in words', async () => {
    const id = randomUUID()
    const sentence = async (r: Response) => ((await r.json()) as { data: { sentence: string } }).data.sentence
    expect((await put(id, jpeg, viewer)).status).toBe(403)
    expect((await put(id, jpeg, member, randomUUID())).status).toBe(404)
    expect((await fetch(`${product.url}/api/photos/${id}`)).status).toBe(401)
    for (
      const broken of [
        jpeg.slice(0, 60),
        jpeg.slice(0, jpeg.length / 2),
        Uint8Array.from(text('<svg onload=alert(1)>')),
        await sharp({ create: { width: 9, height: 9, channels: 3, background: '#0f0' } }).png().toBuffer(),
        jpeg.slice(2),
        Uint8Array.from([0xFF, 0xD8, 0xFF, 0xD9]),
        // A few hundred bytes that claim a picture of 65 000 by 65 000.
        claiming(jpeg, 65_000),
      ]
    ) expect(await sentence(await put(id, broken, member))).toBe('This is no whole JPEG photo.')
    expect(await sentence(await put(id, new Uint8Array(900_001), member))).toMatch(
      /^A photo has between 1 and 900000 bytes/,
    )
  })
})
