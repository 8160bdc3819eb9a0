import { gzipSync } from 'node:zlib'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { fetchMesh } from './meshes'

/** A server that has this as its model. */
function having(packed: Buffer): void {
  const kept = {
    id: 'm', mould: 'x', name: 'tile.stl', unit: 'mm', triangles: 1, parts: 1, sha256: undefined, bytes: packed.length,
  }
  vi.stubGlobal('crypto', { randomUUID: () => 'x' })
  vi.stubGlobal('fetch', (address: string) => Promise.resolve(
    address.includes('/parts/') ? new Response(new Uint8Array(packed)) : Response.json(kept),
  ))
}
afterEach(() => vi.unstubAllGlobals())

describe('a model that comes back', () => {
  it('is unpacked, and no further than a model can be large', async () => {
    having(gzipSync(Buffer.alloc(5000, 7)))
    expect((await (await fetchMesh('x')).file.arrayBuffer()).byteLength).toBe(5000)
    await expect(fetchMesh('x', 4000)).rejects.toThrow('The model that came back is damaged.')
  })

  it('and what is no packed file is damaged, too', async () => {
    having(Buffer.from('no packed file at all'))
    await expect(fetchMesh('x')).rejects.toThrow('The model that came back is damaged.')
  })
})
