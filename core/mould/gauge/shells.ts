import type { CubicMetres, Metres } from '../../units/quantity'

/**
 * What goes around a body in even layers. A convex body of volume V, surface S and mean curvature M (taken over its
 * surface), grown by t all round, is V + S t + M t^2 + 4/3 pi t^3 (Steiner 1840): each layer takes more than the one
 * below it.
 */
export type ShellBody
  = | {
    readonly kind: 'box'
    readonly width: Metres
    readonly length: Metres
    readonly height: Metres
    readonly onTable?: boolean
  }
  | { readonly kind: 'cylinder', readonly across: Metres, readonly height: Metres, readonly onTable?: boolean }
  | { readonly kind: 'ball' | 'dome', readonly across: Metres }
  | GrownBody
/** A model whose skin was followed outwards: what each layer of this thickness took, from the innermost out. */
export interface GrownBody { readonly kind: 'grown', readonly each: Metres, readonly taken: readonly CubicMetres[] }
export type Core
  = | ShellBody
    /** An area that was measured, as curved as a ball of that radius; with an open edge where it has one. */
    | { readonly kind: 'area', readonly area: number, readonly radius?: Metres, readonly rim?: Metres }

/** Growth of volume by thickness: `first` m2, `second` m, `third` without unit. */
interface Growth { readonly first: number, readonly second: number, readonly third: number }

/** A box or cylinder on a table gets nothing on its lower face; a dome always stands so, a ball never. */
function growthOf(core: Exclude<Core, GrownBody>): Growth {
  const whole = 4 / 3 * Math.PI
  switch (core.kind) {
    case 'box': {
      const { width: a, length: b, height: c } = core
      return core.onTable
        ? { first: a * b + 2 * (a + b) * c, second: Math.PI * c + Math.PI * (a + b) / 2, third: whole / 2 }
        : { first: 2 * (a * b + b * c + c * a), second: Math.PI * (a + b + c), third: whole }
    }
    case 'cylinder': {
      const r = core.across / 2, h = core.height, side = 2 * Math.PI * r * h, top = Math.PI * r * r
      return core.onTable
        ? { first: top + side, second: Math.PI * h + Math.PI ** 2 * r / 2, third: whole / 2 }
        : { first: 2 * top + side, second: Math.PI ** 2 * r + Math.PI * h, third: whole }
    }
    case 'ball':
    case 'dome': {
      const r = core.across / 2, part = core.kind === 'dome' ? 0.5 : 1
      return { first: part * 4 * Math.PI * r * r, second: part * 4 * Math.PI * r, third: part * whole }
    }
    case 'area': {
      const { area, radius, rim = 0 } = core
      const curved = radius ? { second: area / radius, third: area / (3 * radius * radius) } : { second: 0, third: 0 }
      return { first: area, second: curved.second + Math.PI / 4 * rim, third: curved.third }
    }
  }
}

/**
 * What was measured, evenly within a layer; further out each layer takes more than the last by as much as that did.
 * (Steiner's formula, with its third term left out.)
 */
function grownVolume({ each, taken }: GrownBody, thickness: Metres): CubicMetres {
  const last = taken.at(-1)!, more = taken.length > 1 ? Math.max(0, last - taken.at(-2)!) : 0
  let volume = 0, left = thickness / each
  for (let k = 0; left > 0; k++, left--) {
    const layer = taken[k] ?? last + more * (k - taken.length + 1)
    volume += layer * Math.min(1, left)
  }
  return volume
}

/**
 * What a shell takes in all. @param thickness of all layers together
 * @example shellVolume({ kind: 'ball', across: 0.1 }, 0.01) // 3.812e-4 m3
 */
export function shellVolume(core: Core, thickness: Metres): CubicMetres {
  if (core.kind === 'grown') return grownVolume(core, thickness)
  const { first, second, third } = growthOf(core), t = thickness
  return first * t + second * t * t + third * t ** 3
}

/** What each of several even layers takes, from the innermost outwards. */
export function layerVolumes(core: Core, each: Metres, layers: number): readonly CubicMetres[] {
  const upTo = (k: number) => shellVolume(core, k * each)
  return Array.from({ length: layers }, (_, k) => upTo(k + 1) - upTo(k))
}

/** A shell as it is gauged: around a body, or over an area whose relief is more than its outline. */
export interface ShellGauge {
  readonly area: number
  readonly relief: number
  readonly thickness: Metres
  readonly layers: number
  readonly radius?: Metres
  readonly rim?: Metres
  readonly body?: ShellBody
}

function coreOf({ area, relief, radius, rim, body }: ShellGauge): Core {
  return body ?? { kind: 'area', area, radius, rim: rim === undefined ? undefined : rim / relief }
}

/** What each of its layers takes, from the innermost outwards. */
export function shellLayers(gauge: ShellGauge): readonly CubicMetres[] {
  return layerVolumes(coreOf(gauge), gauge.thickness, gauge.layers).map(v => v * gauge.relief)
}

/**
 * Shares of its volume that coats take which share its thickness so, from the innermost outwards.
 * @param thickness shares that add up to one
 */
export function shellShares(gauge: ShellGauge, thickness: readonly number[]): readonly number[] {
  const core = coreOf(gauge), whole = gauge.thickness * gauge.layers, all = shellVolume(core, whole)
  let upTo = 0
  return thickness.map((share) => {
    const from = upTo
    upTo += share
    return (shellVolume(core, upTo * whole) - shellVolume(core, from * whole)) / all
  })
}
