import { PART_BYTES, type KeptMesh, type MeshFacts } from '~contract/mesh'
import { MOST_BYTES, writeStl } from '~core/mould/mesh/stl'
import { ask, askFile, newId, Refused } from './api'

/** Models on their way to the server and back: binary STL, gzipped by the browser, in parts. */

async function packed(bytes: Uint8Array): Promise<Uint8Array> {
  const packing = new CompressionStream('gzip') as ReadableWritablePair<Uint8Array, BufferSource>
  return new Uint8Array(await new Response(new Blob([bytes as BlobPart]).stream().pipeThrough(packing)).arrayBuffer())
}

/**
 * Unpacks a model as it comes, and no further than one can be large: an archive that somebody made may bring a file
 * that unpacks without end. @throws Refused
 */
async function unpacked(bytes: Uint8Array, most: number): Promise<BlobPart[]> {
  const parts: Uint8Array[] = []
  const unpacking = new DecompressionStream('gzip') as ReadableWritablePair<Uint8Array, BufferSource>
  const reader = new Blob([bytes as BlobPart]).stream().pipeThrough(unpacking).getReader()
  for (let length = 0; ;) {
    const { done, value } = await reader.read().catch(() => {
      throw new Refused(DAMAGED, 0)
    })
    if (done) return parts as BlobPart[]
    parts.push(value)
    length += value.length
    if (length <= most) continue
    await reader.cancel()
    throw new Refused(DAMAGED, 0)
  }
}
const DAMAGED = 'The model that came back is damaged. Bring it in from its file again.'

async function sha256(bytes: Uint8Array): Promise<string | undefined> {
  // Not offered on a page that came over plain http; the server then counts parts only.
  if (!globalThis.crypto?.subtle) return undefined
  return [...new Uint8Array(await crypto.subtle.digest('SHA-256', bytes as BufferSource))].map(b =>
    b.toString(16).padStart(2, '0'),
  ).join('')
}

/** A model is not kept by itself until the server is back: it is said so. */
async function unkept<T>(work: Promise<T>): Promise<T> {
  return work.catch((error: unknown) => {
    if (!(error instanceof Refused) || error.status !== 0) throw error
    throw new Refused('The workshop’s server does not answer just now. The model was not kept; try it again.', 0)
  })
}

/** @param progress is told the share that was sent. @throws Refused in words. */
export async function keepMesh(
  positions: Float32Array,
  facts: Omit<MeshFacts, 'triangles' | 'parts'>,
  progress: (share: number) => void,
): Promise<KeptMesh> {
  const bytes = await packed(writeStl({ positions }))
  const id = newId(), parts = Math.ceil(bytes.length / PART_BYTES)
  await unkept(ask('PUT meshes/:id', {
    params: { id },
    body: { ...facts, triangles: positions.length / 9, parts },
  }))
  for (let i = 0; i < parts; i++) {
    const share = bytes.slice(i * PART_BYTES, (i + 1) * PART_BYTES) as BlobPart
    await unkept(ask('PUT meshes/:id/parts/:part', {
      params: { id, part: i },
      bytes: new Blob([share], { type: 'application/octet-stream' }),
    }))
    progress((i + 1) / parts)
  }
  return unkept(ask('POST meshes/:id/done', { params: { id }, body: { sha256: await sha256(bytes) } }))
}

/**
 * The model of a mould as an STL file. @param most bytes, unpacked @throws Refused when it has none, or what came back
 * is not what was kept.
 */
export async function fetchMesh(
  mould: string,
  most = MOST_BYTES,
): Promise<{ readonly kept: KeptMesh, readonly file: File }> {
  const kept = await ask('GET meshes', { query: { mould } })
  const whole = new Uint8Array(kept.bytes)
  for (let i = 0, at = 0; i < kept.parts; i++) {
    const part = await askFile('GET meshes/:id/parts/:part', { params: { id: kept.id, part: i } })
    const data = new Uint8Array(await part.arrayBuffer())
    whole.set(data, at)
    at += data.length
  }
  const own = await sha256(whole)
  if (own !== undefined && own !== kept.sha256)
    throw new Refused(DAMAGED, 0)
  return { kept, file: new File(await unpacked(whole, most), kept.name) }
}
