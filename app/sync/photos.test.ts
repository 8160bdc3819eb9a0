import { afterEach, describe, expect, it, vi } from 'vitest'
import { shrunk } from './photos'

/** The first bytes of a PNG of this size (PNG specification, 11.2.2 IHDR); its picture is not in it. */
function claiming(side: number): Blob {
  const bytes = Buffer.alloc(33)
  Buffer.from([0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A, 0, 0, 0, 13]).copy(bytes)
  bytes.write('IHDR', 12, 'latin1')
  bytes.writeUInt32BE(side, 16)
  bytes.writeUInt32BE(side, 20)
  return new Blob([bytes])
}
afterEach(() => vi.unstubAllGlobals())

describe('a photo that is chosen', () => {
  it('of more pixels than a browser holds is refused before it is unpacked; another kind is for the browser to judge', async () => {
    const unpack = vi.fn(() => Promise.reject(new Error('no picture')))
    vi.stubGlobal('createImageBitmap', unpack)
    await expect(shrunk(claiming(60_000))).rejects.toThrow(/more pixels than a browser can hold/)
    expect(unpack).not.toHaveBeenCalled()
    await expect(shrunk(new Blob(['a cat']))).rejects.toThrow(/no picture that the browser can read/)
    expect(unpack).toHaveBeenCalledOnce()
  })
})
