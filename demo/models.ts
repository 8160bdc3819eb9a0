import { mkdirSync, writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { ball, box, positionsOf, turned, type Triangle } from '../core/mould/mesh/solids'
import type { Vector } from '../core/mould/mesh/spans'
import { writeStl } from '../core/mould/mesh/stl'

/** Writes the sample models of the demo workshop, in millimetres: `npm run models`. Both carry a fault on purpose. */
function moved(triangles: readonly Triangle[], [x, y, z]: Vector, scale: Vector = [1, 1, 1], turn = 0): Triangle[] {
  const [c, s] = [Math.cos(turn), Math.sin(turn)]
  return triangles.map(t => t.map(([a, b, d]): Vector => {
    const [p, q] = [a * scale[0], b * scale[1]]
    return [p * c - q * s + x, p * s + q * c + y, d * scale[2] + z]
  }) as unknown as Triangle)
}

/** A pull with a waist, which locks a rigid mould, and an ear that stands up beside it, which keeps its air. */
const bellPull: Triangle[] = [
  ...turned([[0, 0], [9, 1.5], [14, 6], [16, 14], [13, 23], [8, 30], [7, 36], [9, 42], [11, 47], [10, 52], [6, 56], [
    6,
    60,
  ]], 72),
  ...box([0, -3.5, 10], [22, 3.5, 17]),
  ...turned([[3.5, 10], [3.5, 30]], 32, [22, 0, 0]),
]

/** A plate with petals, poured face down through its back; under two petals the tips curl back up and keep air. */
const petals = Array.from({ length: 8 }, (_, k) => {
  const turn = 2 * Math.PI * k / 8
  const at = (r: number, z: number): Vector => [r * Math.cos(turn), r * Math.sin(turn), z]
  const curl = k % 4 === 1
    ? [
        ...moved(turned([[4, 0], [4, 24]], 24), at(104, -6)),
        ...moved(box([-14, -4, -6], [2, 4, 2]), at(104, 0), [1, 1, 1], turn),
      ]
    : []
  return [...moved(ball(1, 16, 28), at(62, 0), [34, 15, 13], turn), ...curl]
}).flat()
const rosette: Triangle[] = [
  ...turned([[84, 2], [90, 10], [90, 22]], 96),
  ...moved(ball(1, 20, 36), [0, 0, 2], [24, 24, 17]),
  ...petals,
]

const folder = fileURLToPath(new URL('../public/samples/', import.meta.url))
mkdirSync(folder, { recursive: true })
for (const [name, triangles] of [['bell-pull', bellPull], ['rosette', rosette]] as const)
  writeFileSync(`${folder}${name}.stl`, writeStl({ positions: positionsOf(triangles) }))
