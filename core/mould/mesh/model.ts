import { measureMesh, meshRemarks, tightness, turnedInsideOut, type MeshMeasures } from './mesh'
import { columnSpans, spanVolume } from './spans'
import { readStl, type ModelProblem, type ModelRemark } from './stl'

/** A piece as it will be cast, read from a file and judged. Lengths in the file's own unit. */
export interface Model {
  readonly positions: Float32Array
  /** Facing outwards, so that its volume is positive; what overlapping parts share is counted once. */
  readonly measures: MeshMeasures
  /** Whether its volume can be relied on. */
  readonly trusted: boolean
  readonly remarks: readonly ModelRemark[]
}

/**
 * Columns along the longest side by which a model of overlapping parts is measured: within a tenth of a per cent on the
 * sample models.
 */
const MEASURING = 192

/** @returns the model, or why there is nothing to use. */
export function readModel(
  bytes: Uint8Array,
): { readonly ok: true, readonly model: Model } | { readonly ok: false, readonly code: ModelProblem } {
  const stl = readStl(bytes)
  return stl.ok ? { ok: true, model: judged(stl.positions, stl.measures, stl.remarks) } : stl
}

/** Triangles as a model, turned the right way round. */
export function judged(
  given: Float32Array,
  measures: MeshMeasures = measureMesh(given),
  remarks: readonly ModelRemark[] = [],
): Model {
  const positions = measures.volume < 0 ? turnedInsideOut(given) : given
  const columns = columnSpans(positions, [0, 0, 1], MEASURING)
  const { trusted, remarks: found } = meshRemarks(measures, tightness(positions, measures), columns.crossed)
  const volume = columns.crossed > 0 ? spanVolume(columns) : Math.abs(measures.volume)
  return { positions, measures: { ...measures, volume }, trusted, remarks: [...remarks, ...found] }
}
