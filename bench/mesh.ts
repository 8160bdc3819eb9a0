import { BufferGeometry } from 'three'
import { STLLoader } from 'three/addons/loaders/STLLoader.js'
import { mergeVertices } from 'three/addons/utils/BufferGeometryUtils.js'
import { measureMesh, tightness } from '../core/mould/mesh/mesh'
import { ball, positionsOf, torus, type Triangle } from '../core/mould/mesh/solids'
import type { Vector } from '../core/mould/mesh/spans'
import { readStl, writeStl } from '../core/mould/mesh/stl'
import { searchTilt, trappedAir, type Opening } from '../core/mould/mesh/trapped-air'
import { measure } from './measure'

/**
 * Meshes: reading and measuring beside the general-purpose loader, watertightness beside vertex merging, trapped air
 * beside a plain voxel flood.
 */
const million = writeStl({ positions: positionsOf(ball(50, 500, 1000)) })
console.log(`binary STL of ${(million.length - 84) / 50} triangles`)
const ours = measure('read, volume, area and box', () => {
  const read = readStl(million)
  return read.ok && read.measures.volume
}, 12)
const loader = new STLLoader()
const theirs = measure('general-purpose loader and a plain loop over its positions', () => {
  const p = loader.parse(million.buffer as ArrayBuffer).getAttribute('position').array
  let volume = 0, area = 0
  for (let i = 0; i < p.length; i += 9) {
    const [ax, ay, az, bx, by, bz, cx, cy, cz] = p.slice(i, i + 9) as unknown as number[] as [
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
    ]
    const nx = (by - ay) * (cz - az) - (bz - az) * (cy - ay),
      ny = (bz - az) * (cx - ax) - (bx - ax) * (cz - az),
      nz = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax)
    volume += (ax * nx + ay * ny + az * nz) / 6
    area += Math.hypot(nx, ny, nz) / 2
  }
  return volume + area
}, 5)
console.log(`ratio ${(ours / theirs).toFixed(2)} (wanted 0.3)`)
const half = readStl(writeStl({ positions: positionsOf(ball(50, 250, 500)) }))
if (!half.ok) throw new Error(half.code)
measure('watertightness of 250 k triangles', () => tightness(half.positions), 5)
measure('general-purpose vertex merge and edge count of the same', () => {
  const geometry = new BufferGeometry()
  geometry.setAttribute('position', loader.parse(writeStl(half).buffer as ArrayBuffer).getAttribute('position'))
  const index = mergeVertices(geometry, 1e-3).index!.array, edges = new Map<string, number>()
  for (let i = 0; i < index.length; i += 3) for (let k = 0; k < 3; k++) {
    const [a, b] = [index[i + k]!, index[i + (k + 1) % 3]!]
    const key = a < b ? `${a},${b}` : `${b},${a}`
    edges.set(key, (edges.get(key) ?? 0) + 1)
  }
  return edges.size
}, 2)

/** A body with bumps, its triangles given by the rings; and a sparse figure of a ring with arms. */
const bumpy = (rings: number): Float32Array => {
  const p = positionsOf(ball(50, rings, 2 * rings))
  for (let i = 0; i < p.length; i += 3) {
    const k = 1 + 0.08 * Math.sin(p[i]! / 7) * Math.sin(p[i + 1]! / 9) * Math.cos(p[i + 2]! / 8)
    for (let j = 0; j < 3; j++) p[i + j]! *= k
  }
  return p
}
const sparse = (): Float32Array =>
  positionsOf(
    [0, 1, 2].flatMap((k): Triangle[] =>
      torus(60 - 12 * k, 5, 150, 78).map(t =>
        t.map(([x, y, z]): Vector =>
          k === 0 ? [x, y, z] : k === 1 ? [x, z, y + 20] : [z, x, y - 20],
        ) as unknown as Triangle,
      ),
    ),
  )
const hole: Opening = { at: [0, 0, 50], radius: 4, out: [0, 0, 1] }
for (
  const [name, positions] of [['20 k triangles', bumpy(71)], ['70 k, sparse', sparse()], [
    '200 k triangles',
    bumpy(224),
  ]] as const
) {
  const top: Opening = name.includes('sparse') ? { at: [60, 0, 5], radius: 4, out: [0, 0, 1] } : hole
  console.log(`${name}: ${positions.length / 9}`)
  for (const cells of [64, 96, 128])
    measure(`  trapped air, one tilt, N ${cells}`, i =>
      trappedAir(positions, [0.1, 0.05 + 0.001 * i, 1], [top], [], cells), 20)
  measure('  plain voxel flood, one tilt, N 64', () => voxelFlood(positions, 64, top), 2)
  const before = performance.now()
  const work = searchTilt(positions, [0, 0, 1], [top], [])
  let step = work.next()
  while (!step.done) step = work.next()
  console.log(
    `  whole search of tilts: ${((performance.now() - before) / 1000).toFixed(2)} s, ${
      (100 * step.value.upright.trapped / step.value.upright.volume).toFixed(2)
    } % to ${(100 * step.value.best.trapped / step.value.best.volume).toFixed(2)} %`,
  )
}
console.log(`memory now: ${(process.memoryUsage().rss / 1e6).toFixed(0)} MB`)

/** The rival: cells filled by parity along up, flooded from the top down; every slope is a staircase to it. */
function voxelFlood(positions: Float32Array, cells: number, top: Opening): number {
  const { low, high } = measureMesh(positions)
  const h = Math.max(high[0] - low[0], high[1] - low[1], high[2] - low[2]) / cells
  const [nx, ny, nz] = [0, 1, 2].map(i => Math.ceil((high[i]! - low[i]!) / h) + 1) as [number, number, number]
  const crossings: number[][] = Array.from({ length: nx * ny }, () => [])
  for (let i = 0; i < positions.length; i += 9) {
    const [ax, ay, az, bx, by, bz, cx, cy, cz] = [...positions.subarray(i, i + 9)] as [
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
    ]
    const d = (by - cy) * (ax - cx) + (cx - bx) * (ay - cy)
    if (d === 0) continue
    for (
      let x = Math.ceil((Math.min(ax, bx, cx) - low[0]) / h - 0.5); x <= (Math.max(ax, bx, cx) - low[0]) / h - 0.5; x++
    ) {
      for (
        let y = Math.ceil((Math.min(ay, by, cy) - low[1]) / h - 0.5);
        y <= (Math.max(ay, by, cy) - low[1]) / h - 0.5;
        y++
      ) {
        const px = low[0] + (x + 0.5) * h, py = low[1] + (y + 0.5) * h
        const u = ((by - cy) * (px - cx) + (cx - bx) * (py - cy)) / d,
          v = ((cy - ay) * (px - cx) + (ax - cx) * (py - cy)) / d
        if (u >= 0 && v >= 0 && u + v <= 1) crossings[y * nx + x]?.push(u * az + v * bz + (1 - u - v) * cz)
      }
    }
  }
  const inside = new Uint8Array(nx * ny * nz)
  crossings.forEach((z, c) => {
    z.sort((a, b) => a - b)
    for (let k = 0; k + 1 < z.length; k += 2)
      for (let j = Math.ceil((z[k]! - low[2]) / h - 0.5); j <= (z[k + 1]! - low[2]) / h - 0.5; j++)
        if (j >= 0 && j < nz) inside[j * nx * ny + c] = 1
  })
  const release = new Int16Array(inside.length).fill(-1)
  const levels: number[][] = Array.from({ length: nz }, () => [])
  const start = [0, 1, 2].map(i => Math.round((top.at[i]! - low[i]!) / h - 0.5))
  for (let z = Math.min(nz - 1, start[2]!); z >= 0; z--) {
    const c = z * nx * ny + start[1]! * nx + start[0]!
    if (inside[c]) {
      release[c] = z
      levels[z]!.push(c)
      break
    }
  }
  for (let z = nz - 1; z >= 0; z--) {
    for (let c = levels[z]!.pop(); c !== undefined; c = levels[z]!.pop()) {
      for (const next of [c - 1, c + 1, c - nx, c + nx, c - nx * ny, c + nx * ny]) {
        if (!inside[next]) continue
        const level = Math.min(z, Math.floor(next / (nx * ny)))
        if (level > release[next]!) {
          release[next] = level
          levels[level]!.push(next)
        }
      }
    }
  }
  return inside.reduce((n, on, c) => n + (on && Math.floor(c / (nx * ny)) > release[c]! ? 1 : 0), 0) * h ** 3
}
