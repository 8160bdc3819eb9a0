import type { Gauge, GaugeHow } from '~core/mould/gauge/gauge'
import type { ShellBody } from '~core/mould/gauge/shells'
import type { Shape } from '~core/mould/gauge/shapes'

/** Where each way of gauging and each shape begins: plausible, and plainly to be replaced. */
export const BLANK_GAUGES: Readonly<Record<Exclude<GaugeHow, 'mesh' | 'pours'>, Gauge>> = {
  'water-weight': { how: 'water-weight', mass: 0.5, temperature: 18 },
  'water-jug': { how: 'water-jug', reading: 5e-4, step: 2.5e-5 },
  'water-part': { how: 'water-part', water: 2.5e-4, share: 0.5 },
  'gravel': { how: 'gravel', reading: 5e-4, step: 2.5e-5, grain: 0.003, gap: 0.03 },
  'shapes': { how: 'shapes', stack: [{ kind: 'box', width: 0.1, length: 0.1, height: 0.05 }], error: 0.001 },
  'model-weight': { how: 'model-weight', mass: 0.5, density: { low: 1750, high: 1950 } },
  'dam': {
    how: 'dam',
    area: 0.05,
    sides: { width: 0.25, length: 0.2 },
    printArea: 0.028,
    printSides: { width: 0.1, length: 0.28 },
    printDepth: 0.015,
    cover: 0.025,
  },
  'shell': {
    how: 'shell',
    area: 0.05,
    sides: { width: 0.25, length: 0.2 },
    relief: 1.2,
    thickness: 0.008,
    layers: 1,
  },
  'told': { how: 'told', volume: 5e-4, percent: 10 },
}

/** What a shell goes around, to begin with. */
export const BLANK_BODIES: Readonly<Record<Exclude<ShellBody['kind'], 'grown'>, ShellBody>> = {
  box: { kind: 'box', width: 0.2, length: 0.15, height: 0.1, onTable: true },
  cylinder: { kind: 'cylinder', across: 0.1, height: 0.12, onTable: true },
  ball: { kind: 'ball', across: 0.1 },
  dome: { kind: 'dome', across: 0.16 },
}

export const BLANK_SHAPES: Readonly<Record<Shape['kind'], { readonly name: string, readonly shape: Shape }>> = {
  box: { name: 'Box', shape: { kind: 'box', width: 0.1, length: 0.1, height: 0.05 } },
  cylinder: { name: 'Cylinder', shape: { kind: 'cylinder', across: 0.1, height: 0.05 } },
  cup: { name: 'Tapered cup or bucket', shape: { kind: 'cup', bottom: 0.08, top: 0.1, height: 0.1 } },
  tray: {
    name: 'Tray with sloping sides',
    shape: { kind: 'tray', bottomWidth: 0.1, bottomLength: 0.14, topWidth: 0.12, topLength: 0.16, height: 0.03 },
  },
  cap: { name: 'Round bowl, cut from a ball', shape: { kind: 'cap', rim: 0.2, depth: 0.06 } },
  bowl: { name: 'Half an egg', shape: { kind: 'bowl', width: 0.16, length: 0.16, depth: 0.08 } },
  ellipsoid: { name: 'Ball or egg', shape: { kind: 'ellipsoid', width: 0.1, length: 0.1, height: 0.1 } },
  outline: {
    name: 'Traced outline, upright walls',
    shape: {
      kind: 'outline',
      points: [{ x: 0, y: 0 }, { x: 0.12, y: 0 }, { x: 0.12, y: 0.08 }, { x: 0, y: 0.08 }],
      height: 0.03,
    },
  },
  turned: {
    name: 'Turned profile',
    shape: {
      kind: 'turned',
      points: [{ height: 0, across: 0.06 }, { height: 0.04, across: 0.09 }, { height: 0.08, across: 0.07 }, {
        height: 0.1,
        across: 0.1,
      }],
    },
  },
}

/** Densities of what models are made of, kg/m3 (handbook ranges from memory). */
export const MODEL_MATERIALS: readonly { readonly name: string, readonly low: number, readonly high: number }[] = [
  { name: 'Water-based clay, wet', low: 1750, high: 1950 },
  { name: 'Oil-based clay', low: 1400, high: 1800 },
  { name: 'Wax', low: 880, high: 970 },
  { name: 'Plaster, dry', low: 1000, high: 1250 },
  { name: 'Hardwood', low: 600, high: 800 },
  { name: 'Resin', low: 1050, high: 1250 },
  { name: 'Printed plastic, solid', low: 1050, high: 1270 },
  { name: 'Glass', low: 2450, high: 2550 },
  { name: 'Fired clay', low: 1700, high: 2100 },
]
