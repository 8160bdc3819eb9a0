import { PART_BYTES, type KeptMesh, type MeshFacts } from '~contract/mesh'
import { writeStl } from '~core/mould/mesh/stl'
import { api, newId, Refused } from './api'

/** Models on their way to the server and back: binary STL, gzipped by the browser, in parts. */

async function through(bytes: Uint8Array, stream: CompressionStream | DecompressionStream): Promise<Uint8Array> {
  return new Uint8Array(
    await new Response(
      new Blob([bytes as BlobPart]).stream().pipeThrough(stream as ReadableWritablePair<Uint8Array, BufferSource>),
    ).arrayBuffer(),
  )
}

async function sha256(bytes: Uint8Array): Promise<string | undefined> {
  // Not offered on a page that came over plain http; the server then counts parts only.
  if (!globalThis.crypto?.subtle) return undefined
  return [...new Uint8Array(await crypto.subtle.digest('SHA-256', bytes as BufferSource))].map(b =>
    b.toString(16).padStart(2, '0'),
  ).join('')
}

async function part(path: string, init?: RequestInit): Promise<Response> {
  const response = await fetch(`/api/meshes/${path}`, init).catch(() => {
    throw new Refused('The workshop’s server does not answer just now. The model was not kept; try it again.', 0)
  })
  if (!response.ok) {
    const answer = await response.json().catch(() => undefined) as { data?: { sentence?: string } } | undefined
    throw new Refused(answer?.data?.sentence ?? 'The server could not take this model.', response.status)
  }
  return response
}

/** @param progress is told the share that was sent. @throws Refused in words. */
export async function keepMesh(
  positions: Float32Array,
  facts: Omit<MeshFacts, 'triangles' | 'parts'>,
  progress: (share: number) => void,
): Promise<KeptMesh> {
  const packed = await through(writeStl({ positions }), new CompressionStream('gzip'))
  const id = newId(), parts = Math.ceil(packed.length / PART_BYTES)
  await api(`meshes/${id}`, { method: 'PUT', body: { ...facts, triangles: positions.length / 9, parts } })
  for (let i = 0; i < parts; i++) {
    await part(`${id}/parts/${i}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/octet-stream' },
      body: packed.slice(i * PART_BYTES, (i + 1) * PART_BYTES) as BodyInit,
    })
    progress((i + 1) / parts)
  }
  return api<KeptMesh>(`meshes/${id}/done`, { method: 'POST', body: { sha256: await sha256(packed) } })
}

/** The model of a mould as an STL file. @throws Refused when it has none, or what came back is not what was kept. */
export async function fetchMesh(mould: string): Promise<{ readonly kept: KeptMesh, readonly file: File }> {
  const kept = await api<KeptMesh>(`meshes?mould=${mould}`)
  const packed = new Uint8Array(kept.bytes)
  for (let i = 0, at = 0; i < kept.parts; i++) {
    const data = new Uint8Array(await (await part(`${kept.id}/parts/${i}`)).arrayBuffer())
    packed.set(data, at)
    at += data.length
  }
  const own = await sha256(packed)
  if (own !== undefined && own !== kept.sha256)
    throw new Refused('The model that came back is damaged. Bring it in from its file again.', 0)
  return { kept, file: new File([await through(packed, new DecompressionStream('gzip')) as BlobPart], kept.name) }
}
