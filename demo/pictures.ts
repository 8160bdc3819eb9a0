import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { gzipSync } from 'node:zlib'
import { likenessOfModel, likenessOfOutlines } from '~core/drawing/likeness'
import { readModel } from '~core/mould/mesh/model'
import { writeStl } from '~core/mould/mesh/stl'
import { ground, type PhotoScale, type Pixel } from '~core/mould/photo/photo'
import type { MouldBody } from '~contract/library'
import { PART_BYTES } from '~contract/mesh'
import type { Scope } from '../server/store/scope'
import { beginMesh, finishMesh, putPart } from '../server/store/meshes'
import { keepPhoto } from '../server/store/photos'
import { cleanJpeg } from '../server/photos/jpeg'
import type { MouldKey } from './saltmarsh'

/** Models and a photo that moulds of the demo have of their own: the product's samples, as large as the mould. */
const MODELS: Partial<Record<MouldKey, string>> = { rosette: 'rosette', bellpull: 'bell-pull' }

const sampleOf = (file: string) => readFileSync(fileURLToPath(new URL(`../public/samples/${file}`, import.meta.url)))

interface Modelled { readonly name: string, readonly positions: Float32Array, readonly looks: MouldBody['looks'] }

/** The model of a mould, as large as what that holds. */
function modelOf(key: MouldKey, body: MouldBody): Modelled | undefined {
  const name = MODELS[key]
  if (!name) return undefined
  const read = readModel(sampleOf(`${name}.stl`))
  if (!read.ok) throw new Error(`The sample ${name} cannot be read: ${read.code}`)
  const { positions, measures } = read.model, scale = Math.cbrt(body.volume.value * 1e9 / measures.volume)
  return { name: `${name}.stl`, positions: positions.map(p => p * scale), looks: likenessOfModel(positions, [0, 0, 1]) }
}

const pixels = (all: readonly (readonly [number, number])[]): Pixel[] => all.map(([x, y]) => ({ x, y }))
/** The card in the sample photo, and what was traced of the heel in it. */
const CARD: PhotoScale = {
  how: 'rectangle',
  corners: pixels([[1125, 391], [1535, 396], [1577, 685], [1150, 687]]) as unknown as [Pixel, Pixel, Pixel, Pixel],
  width: 0.148,
  length: 0.105,
}
const TRACED = [
  {
    name: 'Heel',
    points: [[242, 467], [245, 516], [292, 553], [392, 581], [486, 593], [540, 409], [455, 376], [357, 354], [296, 361],
      [264, 400]],
  },
  { name: 'First cleat', points: [[330, 367], [369, 395], [329, 522], [278, 528]] },
  { name: 'Second cleat', points: [[417, 390], [456, 417], [418, 545], [367, 550]] },
].map(t => ({ name: t.name, what: 'outline' as const, points: pixels(t.points as [number, number][]) }))

/** A mould with what it looks like, and what puts its model or photo with it once it stands. */
export function pictured(
  key: MouldKey, body: MouldBody, today: string, newId: () => string,
): { readonly body: MouldBody, readonly keep: (scope: Scope, mould: string) => Promise<void> } {
  const model = modelOf(key, body)
  if (model)
    return {
      body: { ...body, form: undefined, looks: model.looks },
      keep: (scope, mould) => keepModel(scope, newId(), mould, model),
    }
  if (key !== 'heel') return { body, keep: async () => {} }
  const photo = newId(), laid = ground(CARD)
  const impression = {
    place: 'Towpath, by the second lock', on: today, believed: 'a walking boot', faced: 'up the towpath',
    photo: { id: photo, scale: CARD, marks: TRACED },
  }
  const looks = laid.ok ? likenessOfOutlines(TRACED.map(t => t.points), laid.at) : undefined
  return {
    body: { ...body, kind: 'print', form: undefined, looks, impression },
    keep: async (scope, mould) => {
      const clean = cleanJpeg(sampleOf('print.jpg'))
      if (clean) await keepPhoto(scope, photo, { mould }, 'The print, with what gives its scale', clean)
    },
  }
}

async function keepModel(scope: Scope, id: string, mould: string, { name, positions }: Modelled): Promise<void> {
  const bytes = gzipSync(writeStl({ positions })), parts = Math.ceil(bytes.length / PART_BYTES)
  await beginMesh(scope, id, { mould, name, unit: 'mm', triangles: positions.length / 9, parts })
  for (let i = 0; i < parts; i++) await putPart(scope, id, i, bytes.subarray(i * PART_BYTES, (i + 1) * PART_BYTES))
  await finishMesh(scope, id)
}
