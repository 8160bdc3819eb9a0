import { expose, transfer } from 'comlink'
import { likenessOfModel } from '~core/drawing/likeness'
import { searchMoves } from '~core/mould/mesh/fill-moves'
import { jacketLayers } from '~core/mould/mesh/jacket'
import { judged, readModel, type Model } from '~core/mould/mesh/model'
import { holeOnTop, openOnTop } from '~core/mould/mesh/openings'
import type { Vector } from '~core/mould/mesh/spans'
import type { ModelProblem } from '~core/mould/mesh/stl'
import { bestVent, searchTilt, trappedAir, type Opening } from '~core/mould/mesh/trapped-air'
import { lockedAlong, searchPull } from '~core/mould/mesh/undercut'

/** Work on a mesh beside the page. What takes long says how far it is; it is stopped by ending the worker. */
export interface Pouring { readonly up: Vector, readonly pour: readonly Opening[], readonly vents: readonly Opening[] }
type Progress = (share: number) => void
type Held = Pick<Model, 'positions' | 'measures'>

const CELLS = 96
let held: Held | undefined

function finish<T>(work: Generator<number, T>, progress: Progress): T {
  for (;;) {
    const step = work.next()
    if (step.done) return step.value
    progress(step.value)
  }
}
/** Kept here, and a copy of it for the page. */
function keep(model: Model): { readonly model: Model } {
  held = model
  const positions = model.positions.slice()
  return transfer({ model: { ...model, positions } }, [positions.buffer])
}
function positions(): Float32Array {
  return held?.positions ?? new Float32Array(0)
}

const work = {
  read(bytes: ArrayBuffer): { readonly model?: Model, readonly problem?: ModelProblem } {
    const read = readModel(new Uint8Array(bytes))
    if (!read.ok) return { problem: read.code }
    return keep(read.model)
  },
  take: (given: Float32Array) => keep(judged(given)),
  hold(model: Held): void {
    held = model
  },
  likeness: (up: Vector) => likenessOfModel(positions(), up),
  openOnTop: (up: Vector) => held && openOnTop(held.positions, held.measures, up),
  holeOnTop: (up: Vector, radius: number) => held && holeOnTop(held.positions, held.measures, up, radius),
  pull: (progress: Progress) => finish(searchPull(positions()), progress),
  along: (pull: Vector, draft: number) => lockedAlong(positions(), pull, CELLS, draft),
  air: ({ up, pour, vents }: Pouring) => trappedAir(positions(), up, pour, vents, CELLS),
  tilt: ({ up, pour, vents }: Pouring, progress: Progress) =>
    finish(searchTilt(positions(), up, pour, vents), progress),
  moves: ({ up, pour, vents }: Pouring, progress: Progress) =>
    finish(searchMoves(positions(), up, [...pour, ...vents]), progress),
  jacket: (thickness: number, layers: number, stands: Vector | undefined, progress: Progress) =>
    held && finish(jacketLayers(held, thickness, layers, held.measures.volume, stands), progress),
  vent: ({ up, pour, vents }: Pouring, radius: number) => bestVent(positions(), up, pour, vents, radius),
}
export type MeshWork = typeof work
expose(work)
