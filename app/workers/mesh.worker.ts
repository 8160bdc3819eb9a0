import { searchMoves, type FillMoves } from '~core/mould/mesh/fill-moves'
import { judged, readModel, type Model } from '~core/mould/mesh/model'
import type { ModelProblem } from '~core/mould/mesh/stl'
import type { Vector } from '~core/mould/mesh/spans'
import {
  bestVent,
  searchTilt,
  trappedAir,
  type Opening,
  type TiltSearch,
  type Trapped,
} from '~core/mould/mesh/trapped-air'
import { lockedAlong, searchPull, type Locked, type PullSearch } from '~core/mould/mesh/undercut'

/**
 * Work on a mesh beside the page. A question that takes long reports how far it is; it is stopped by ending the worker.
 */
export interface Pouring { readonly up: Vector, readonly pour: readonly Opening[], readonly vents: readonly Opening[] }
export type MeshAsked = { readonly id: number } & (
  | { readonly what: 'read', readonly bytes: ArrayBuffer }
  | { readonly what: 'take' | 'hold', readonly positions: Float32Array }
  | { readonly what: 'pull' }
  | { readonly what: 'along', readonly pull: Vector, readonly draft: number }
  | ({ readonly what: 'air' | 'tilt' | 'moves' } & Pouring)
  | ({ readonly what: 'vent', readonly radius: number } & Pouring)
)
export type MeshAnswered = { readonly id: number } & (
  | { readonly what: 'progress', readonly share: number }
  | { readonly what: 'refused', readonly code: ModelProblem }
  | { readonly what: 'read', readonly mesh: Model }
  | { readonly what: 'pull', readonly pull: PullSearch }
  | { readonly what: 'along', readonly locked: Locked }
  | { readonly what: 'air', readonly air: Trapped }
  | { readonly what: 'tilt', readonly tilt: TiltSearch }
  | { readonly what: 'moves', readonly moves: FillMoves }
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

function keep(id: number, model: Model): void {
  positions = model.positions
  answer({ id, what: 'read', mesh: { ...model, positions: positions.slice() } })
}
function read(id: number, bytes: ArrayBuffer): void {
  const model = readModel(new Uint8Array(bytes))
  if (model.ok) keep(id, model.model)
  else answer({ id, what: 'refused', code: model.code })
}

self.onmessage = ({ data }: MessageEvent<MeshAsked>) => {
  const { id } = data
  switch (data.what) {
    case 'read': return read(id, data.bytes)
    case 'take': return keep(id, judged(data.positions))
    case 'hold': positions = data.positions
      return
    case 'pull':
      return answer({ id, what: 'pull', pull: finish(id, searchPull(positions)) })
    case 'along':
      return answer({ id, what: 'along', locked: lockedAlong(positions, data.pull, CELLS, data.draft) })
    case 'air':
      return answer({ id, what: 'air', air: trappedAir(positions, data.up, data.pour, data.vents, CELLS) })
    case 'tilt':
      return answer({ id, what: 'tilt', tilt: finish(id, searchTilt(positions, data.up, data.pour, data.vents)) })
    case 'moves':
      return answer({
        id,
        what: 'moves',
        moves: finish(id, searchMoves(positions, data.up, [...data.pour, ...data.vents])),
      })
    case 'vent':
      return answer({ id, what: 'vent', vent: bestVent(positions, data.up, data.pour, data.vents, data.radius) })
  }
}
