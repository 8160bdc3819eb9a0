<script setup lang="ts">
import * as THREE from 'three'
import { OrbitControls } from 'three/addons/controls/OrbitControls.js'
import type { Vector } from '~core/mould/mesh/spans'
import type { Opening, Pocket } from '~core/mould/mesh/trapped-air'

/**
 * The piece in space: turned by mouse, finger or keys; cut open; with its openings, its pockets of air and the level of
 * the pour.
 */
const { positions, up, pull, draft, openings, pockets, cut, level } = defineProps<{
  positions: Float32Array
  up: Vector
  /** Facets with less than this draft (degrees) along it are coloured. */
  pull?: Vector
  draft: number
  openings: readonly (Opening & { readonly vent: boolean })[]
  pockets: readonly Pocket[]
  /** How much is cut away, and how high it is filled: 0 to 1. */
  cut: number
  level: number
}>()
const emit = defineEmits<{ pick: [at: Vector, out: Vector] }>()
const canvas = ref<HTMLCanvasElement>()
const failed = ref(false)
const COLOUR = {
  mix: new THREE.Color('#b9c4c8'),
  locked: new THREE.Color('#d9a441'),
  air: '#6f4fb0',
  water: '#1769a5',
  empty: '#dfe7e8',
  poured: '#7d949e',
}

let renderer: THREE.WebGLRenderer | undefined,
  controls: OrbitControls | undefined,
  camera: THREE.PerspectiveCamera | undefined
const scene = new THREE.Scene()
const marks = new THREE.Group()
const section = new THREE.Plane()
let mesh: THREE.Mesh<THREE.BufferGeometry, THREE.MeshStandardMaterial> | undefined
const box = new THREE.Box3()
/** The face of the cut: what is inside the skin along the section plane, empty above the level and poured below it. */
const cap = new THREE.Group()
const belowLevel = new THREE.Plane()
let asked = false

/** Draws once, at the next frame: nothing moves unless somebody moves it. */
function draw() {
  if (asked) return
  asked = true
  requestAnimationFrame(() => {
    asked = false
    if (renderer && camera) renderer.render(scene, camera)
  })
}
const three = (v: Vector) => new THREE.Vector3(...v)

function build() {
  if (!renderer) return
  if (mesh) {
    scene.remove(mesh)
    free(mesh)
  }
  const geometry = new THREE.BufferGeometry()
  geometry.setAttribute('position', new THREE.BufferAttribute(positions, 3))
  geometry.computeVertexNormals()
  geometry.computeBoundingBox()
  box.copy(geometry.boundingBox!)
  mesh = new THREE.Mesh(
    geometry,
    new THREE.MeshStandardMaterial({
      vertexColors: true,
      roughness: 0.85,
      side: THREE.DoubleSide,
      clippingPlanes: [section],
    }),
  )
  scene.add(mesh)
  buildCap(geometry)
  paint()
  aim()
}
/** Gives back what a part holds on the graphics card. Whoever makes something here frees it. */
function free(part: THREE.Mesh<THREE.BufferGeometry, THREE.Material>) {
  part.geometry.dispose()
  part.material.dispose()
}
type Part = THREE.Mesh<THREE.BufferGeometry, THREE.Material>
function freeMarks() {
  for (const part of marks.children as Part[]) free(part)
  marks.clear()
}
/** Its first two parts share the geometry of the piece, which is freed with that. */
function freeCap() {
  for (const part of cap.children as Part[]) {
    if (part.name === 'face') free(part)
    else part.material.dispose()
  }
  cap.clear()
}
/**
 * Counts skins behind the cut in the stencil buffer, back faces up and front faces down; where the count is not
 * nothing, the cut runs through the piece.
 */
function buildCap(geometry: THREE.BufferGeometry) {
  freeCap()
  const counting = (side: THREE.Side, op: THREE.StencilOp) => {
    const counted = new THREE.Mesh(
      geometry,
      new THREE.MeshBasicMaterial({
        side,
        colorWrite: false,
        depthWrite: false,
        depthTest: false,
        clippingPlanes: [section],
        stencilWrite: true,
        stencilFunc: THREE.AlwaysStencilFunc,
        stencilFail: op,
        stencilZFail: op,
        stencilZPass: op,
      }),
    )
    counted.renderOrder = 1
    return counted
  }
  cap.add(
    counting(THREE.BackSide, THREE.IncrementWrapStencilOp),
    counting(THREE.FrontSide, THREE.DecrementWrapStencilOp),
  )
  const size = box.getSize(new THREE.Vector3()).length()
  for (const [color, planes, order] of [[COLOUR.empty, [], 1.1], [COLOUR.poured, [belowLevel], 1.2]] as const) {
    const face = new THREE.Mesh(
      new THREE.PlaneGeometry(2 * size, 2 * size),
      new THREE.MeshBasicMaterial({
        color,
        side: THREE.DoubleSide,
        clippingPlanes: [...planes],
        stencilWrite: true,
        stencilRef: 0,
        stencilFunc: THREE.NotEqualStencilFunc,
        polygonOffset: true,
        polygonOffsetFactor: order === 1.1 ? 0 : -1,
        polygonOffsetUnits: order === 1.1 ? 0 : -1,
      }),
    )
    face.name = 'face'
    face.renderOrder = order
    cap.add(face)
  }
  cap.children.at(-1)!.onAfterRender = r => r.clearStencil()
}
function paint() {
  if (!mesh) return
  const least = Math.sin(draft * Math.PI / 180),
    normals = mesh.geometry.getAttribute('normal'),
    colours = new Float32Array(positions.length)
  for (let i = 0; i < normals.count; i++) {
    const slope = pull ? normals.getX(i) * pull[0] + normals.getY(i) * pull[1] + normals.getZ(i) * pull[2] : 1
    const c = slope < least ? COLOUR.locked : COLOUR.mix
    colours.set([c.r, c.g, c.b], 3 * i)
  }
  mesh.geometry.setAttribute('color', new THREE.BufferAttribute(colours, 3))
  draw()
}
function aim() {
  if (!camera || !controls) return
  const middle = box.getCenter(new THREE.Vector3()), size = box.getSize(new THREE.Vector3()).length()
  camera.up.copy(three(up))
  const side = new THREE.Vector3(1, 0.4, 0.3).cross(three(up)).normalize()
  camera.position.copy(middle).addScaledVector(side, 1.55 * size).addScaledVector(three(up), 0.75 * size)
  camera.near = size / 100
  camera.far = size * 10
  camera.updateProjectionMatrix()
  controls.target.copy(middle)
  controls.update()
  place()
}
/** Section, level and marks follow what they are given. */
function place() {
  if (!mesh || !camera) return
  const w = three(up), middle = box.getCenter(new THREE.Vector3()), size = box.getSize(new THREE.Vector3()).length()
  const across = new THREE.Vector3(1, 0.4, 0.3).cross(w).normalize()
  const corners = [0, 1, 2, 3, 4, 5, 6, 7].map(i =>
    new THREE.Vector3(i & 1 ? box.max.x : box.min.x, i & 2 ? box.max.y : box.min.y, i & 4 ? box.max.z : box.min.z),
  )
  const span = (d: THREE.Vector3) =>
    corners.map(c => c.dot(d)).reduce(
      ([a, b], v) => [Math.min(a, v), Math.max(b, v)] as const,
      [Infinity, -Infinity] as const,
    )
  const [near, far] = span(across)
  section.setComponents(-across.x, -across.y, -across.z, far - cut * (far - near) + 1e-4 * size)
  const [bottom, top] = span(w)
  belowLevel.setComponents(-w.x, -w.y, -w.z, bottom + level * (top - bottom))
  cap.visible = cut > 0
  for (const face of cap.children) {
    if (face.name !== 'face') continue
    face.quaternion.setFromUnitVectors(new THREE.Vector3(0, 0, 1), across)
    face.position.copy(middle).addScaledVector(across, section.distanceToPoint(middle))
  }
  freeMarks()
  for (const o of openings) {
    const disc = new THREE.Mesh(
      new THREE.CylinderGeometry(Math.min(o.radius, size / 3), Math.min(o.radius, size / 3), size / 200, 48),
      new THREE.MeshBasicMaterial({
        color: o.vent ? COLOUR.air : COLOUR.water,
        transparent: true,
        opacity: o.radius > size / 3 ? 0.12 : 0.85,
      }),
    )
    disc.position.copy(three(o.at))
    disc.quaternion.setFromUnitVectors(new THREE.Vector3(0, 1, 0), three(o.out).normalize())
    marks.add(disc)
  }
  for (const p of pockets) {
    const ball = new THREE.Mesh(
      new THREE.SphereGeometry(p.across / 2, 24, 16),
      new THREE.MeshBasicMaterial({ color: COLOUR.air, transparent: true, opacity: 0.75, depthTest: false }),
    )
    ball.position.copy(three(p.middle))
    ball.renderOrder = 2
    marks.add(ball)
  }
  if (level > 0) {
    const plane = new THREE.Mesh(
      new THREE.PlaneGeometry(0.8 * size, 0.8 * size),
      new THREE.MeshBasicMaterial({ color: COLOUR.water, transparent: true, opacity: 0.2, side: THREE.DoubleSide }),
    )
    plane.quaternion.setFromUnitVectors(new THREE.Vector3(0, 0, 1), w)
    plane.position.copy(middle).addScaledVector(w, bottom + level * (top - bottom) - middle.dot(w))
    marks.add(plane)
  }
  draw()
}

function resize() {
  if (!renderer || !camera || !canvas.value) return
  const { clientWidth: w, clientHeight: h } = canvas.value
  renderer.setSize(w, h, false)
  camera.aspect = w / Math.max(1, h)
  camera.updateProjectionMatrix()
  draw()
}
function pick(event: MouseEvent) {
  if (!camera || !mesh || !canvas.value) return
  const r = canvas.value.getBoundingClientRect()
  const ray = new THREE.Raycaster()
  ray.setFromCamera(
    new THREE.Vector2((event.clientX - r.left) / r.width * 2 - 1, 1 - (event.clientY - r.top) / r.height * 2),
    camera,
  )
  const hit = ray.intersectObject(mesh).find(x => section.distanceToPoint(x.point) >= 0)
  if (hit?.face)
    emit('pick', [hit.point.x, hit.point.y, hit.point.z], [hit.face.normal.x, hit.face.normal.y, hit.face.normal.z])
}
function key(event: KeyboardEvent) {
  if (!camera || !controls) return
  const step = Math.PI / 18
  const offset = camera.position.clone().sub(controls.target)
  const w = three(up), side = offset.clone().cross(w).normalize()
  switch (event.key) {
    case 'ArrowLeft': offset.applyAxisAngle(w, -step); break
    case 'ArrowRight': offset.applyAxisAngle(w, step); break
    case 'ArrowUp': offset.applyAxisAngle(side, -step); break
    case 'ArrowDown': offset.applyAxisAngle(side, step); break
    case '+': case '=': offset.multiplyScalar(0.9); break
    case '-': offset.multiplyScalar(1.1); break
    default: return
  }
  event.preventDefault()
  // Not over the top, where up and the line of sight fall together.
  if (Math.abs(offset.clone().normalize().dot(w)) < 0.985) camera.position.copy(controls.target).add(offset)
  controls.update()
  draw()
}
let watcher: ResizeObserver | undefined
onMounted(() => {
  try {
    renderer = new THREE.WebGLRenderer({ canvas: canvas.value!, antialias: true, alpha: true, stencil: true })
  }
  catch {
    failed.value = true
    return
  }
  renderer.localClippingEnabled = true
  renderer.setPixelRatio(Math.min(2, devicePixelRatio))
  camera = new THREE.PerspectiveCamera(35, 1, 0.1, 1000)
  scene.add(new THREE.HemisphereLight('#ffffff', '#77848a', 2.2), marks, cap)
  const lamp = new THREE.DirectionalLight('#ffffff', 1.6)
  camera.add(lamp)
  scene.add(camera)
  controls = new OrbitControls(camera, canvas.value!)
  controls.addEventListener('change', draw)
  watcher = new ResizeObserver(resize)
  watcher.observe(canvas.value!)
  build()
  resize()
})
onBeforeUnmount(() => {
  watcher?.disconnect()
  controls?.dispose()
  freeCap()
  freeMarks()
  if (mesh) free(mesh)
  renderer?.dispose()
})
watch(() => positions, build)
watch(() => [pull, draft], paint)
watch(() => up, aim)
watch(() => [openings, pockets, cut, level], place)
</script>

<template>
  <div class="view">
    <p v-if="failed" class="small soft none">
      This browser cannot draw in three dimensions; the lists beside hold the same facts.
    </p>
    <canvas
      v-show="!failed"
      ref="canvas"
      tabindex="0"
      role="img"
      aria-label="The piece in three dimensions. Arrow keys turn it, plus and minus come nearer or go farther; a double click puts a pour hole or a vent."
      @keydown="key"
      @dblclick="pick" />
  </div>
</template>

<style scoped>
.view {
  position: relative;
}
canvas {
  width: 100%;
  height: 430px;
  display: block;
  border-radius: 12px;
  background: var(--sheet);
  touch-action: none;
  cursor: grab;
}
.none {
  padding: 24px;
  background: var(--sheet);
  border-radius: 12px;
}
</style>
