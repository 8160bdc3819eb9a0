import { mount } from '@vue/test-utils'
import * as THREE from 'three'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { box, positionsOf } from '~core/mould/mesh/solids'
import MeshView from './MeshView.vue'

/** A graphics card that draws nothing: this machine may have none, and what is counted here is what is freed. */
vi.mock('three', async original => ({
  ...await original<typeof THREE>(),
  WebGLRenderer: class {
    localClippingEnabled = false
    setPixelRatio() {}
    setSize() {}
    render() {}
    dispose() {}
  },
}))
vi.mock('three/addons/controls/OrbitControls.js', async () => {
  const { Vector3 } = await import('three')
  return { OrbitControls: class { target = new Vector3(); addEventListener() {} update() {} dispose() {} } }
})

const alive = { geometry: new Set<THREE.BufferGeometry>(), material: new Set<THREE.Material>() }
beforeEach(() => {
  vi.stubGlobal('ResizeObserver', class { observe() {} disconnect() {} })
  alive.geometry.clear()
  alive.material.clear()
  // Every geometry sets its attributes, every material its values, as it is made.
  const setAttribute = THREE.BufferGeometry.prototype.setAttribute
  vi.spyOn(THREE.BufferGeometry.prototype, 'setAttribute').mockImplementation(function (this: THREE.BufferGeometry, ...args) {
    alive.geometry.add(this)
    return setAttribute.apply(this, args)
  })
  vi.spyOn(THREE.BufferGeometry.prototype, 'dispose').mockImplementation(function (this: THREE.BufferGeometry) {
    alive.geometry.delete(this)
  })
  const setValues = THREE.Material.prototype.setValues
  vi.spyOn(THREE.Material.prototype, 'setValues').mockImplementation(function (this: THREE.Material, ...args) {
    alive.material.add(this)
    return setValues.apply(this, args)
  })
  vi.spyOn(THREE.Material.prototype, 'dispose').mockImplementation(function (this: THREE.Material) {
    alive.material.delete(this)
  })
})
afterEach(() => {
  vi.restoreAllMocks()
  vi.unstubAllGlobals()
})

const cube = (side: number) => positionsOf(box([0, 0, 0], [side, side, side]))
const opening = { at: [0.5, 0.5, 1], out: [0, 0, 1], radius: 0.1, vent: false } as const
const pocket = { middle: [0.5, 0.5, 0.5], across: 0.1, volume: 0.001 } as never
const view = () => mount(MeshView, {
  props: { positions: cube(1), up: [0, 0, 1], draft: 3, openings: [opening], pockets: [pocket], cut: 0.5, level: 0.1 },
  global: { stubs: { ClientOnly: true } },
})
const held = () => [alive.geometry.size, alive.material.size]

describe('a model in space', () => {
  it('holds as much after a filling was watched as before', async () => {
    const v = view()
    const before = held()
    expect(before[0]).toBeGreaterThan(3)
    for (let frame = 1; frame <= 60; frame++) await v.setProps({ level: 0.1 + frame / 100 })
    expect(held()).toEqual(before)
    await v.setProps({ positions: cube(2) })
    expect(held()).toEqual(before)
  })

  it('gives everything back when it is left', async () => {
    const v = view()
    await v.setProps({ level: 0.4, cut: 0.2 })
    v.unmount()
    expect(held()).toEqual([0, 0])
  })
})
