import { meshRemarks, tightness, turnedInsideOut, type MeshMeasures } from '~core/mould/mesh'
import type { Vector } from '~core/mould/spans'
import { readStl } from '~core/mould/stl'
import { bestVent, searchTilt, trappedAir, type Opening, type TiltSearch, type Trapped } from '~core/mould/trapped-air'
import { searchPull, type PullSearch } from '~core/mould/undercut'

/** Work on a mesh beside the page. A question that takes long reports how far it is; it is stopped by ending the worker. */
export interface Pouring { readonly up: Vector, readonly pour: readonly Opening[], readonly vents: readonly Opening[] }
export type MeshAsked = { readonly id: number } & (
  | { readonly what: 'read', readonly bytes: ArrayBuffer }
  | { readonly what: 'hold', readonly positions: Float32Array }
  | { readonly what: 'pull' }
  | ({ readonly what: 'air' | 'tilt' } & Pouring)
  | ({ readonly what: 'vent', readonly radius: number } & Pouring)
)
export interface ReadMesh { readonly positions: Float32Array, readonly measures: MeshMeasures, readonly trusted: boolean, readonly remarks: readonly string[] }
export type MeshAnswered = { readonly id: number } & (
  | { readonly what: 'progress', readonly share: number }
  | { readonly what: 'refused', readonly sentence: string }
  | { readonly what: 'read', readonly mesh: ReadMesh }
  | { readonly what: 'pull', readonly pull: PullSearch }
  | { readonly what: 'air', readonly air: Trapped }
  | { readonly what: 'tilt', readonly tilt: TiltSearch }
  | { readonly what: 'vent', readonly vent: { readonly vent: Opening, readonly after: Trapped } | undefined }
)

const CELLS = 96
let positions: Float32Array = new Float32Array(0)
const answer = (message: MeshAnswered) => self.postMessage(message)

function finish<T>(id: number, work: Generator<number, T>): T {
  for (;;) {
    const step = work.next()
    if (step.done) return step.value
    answer({ id, what: 'progress', share: step.value })
  }
}

function read(id: number, bytes: ArrayBuffer): void {
  const stl = readStl(new Uint8Array(bytes))
  if (!stl.ok) return answer({ id, what: 'refused', sentence: stl.sentence })
  const { measures } = stl
  const { trusted, sentences } = meshRemarks(measures, tightness(stl.positions, measures))
  positions = measures.volume < 0 ? turnedInsideOut(stl.positions) : stl.positions
  answer({ id, what: 'read', mesh: { positions: positions.slice(), measures: { ...measures, volume: Math.abs(measures.volume) }, trusted, remarks: [...stl.remarks, ...sentences] } })
}

self.onmessage = ({ data }: MessageEvent<MeshAsked>) => {
  const { id } = data
  switch (data.what) {
    case 'read': return read(id, data.bytes)
    case 'hold': positions = data.positions
      return
    case 'pull': return answer({ id, what: 'pull', pull: finish(id, searchPull(positions)) })
    case 'air': return answer({ id, what: 'air', air: trappedAir(positions, data.up, data.pour, data.vents, CELLS) })
    case 'tilt': return answer({ id, what: 'tilt', tilt: finish(id, searchTilt(positions, data.up, data.pour, data.vents)) })
    case 'vent': return answer({ id, what: 'vent', vent: bestVent(positions, data.up, data.pour, data.vents, data.radius) })
  }
}
