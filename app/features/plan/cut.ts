import { profileOf } from '~core/drawing/profile'
import { vesselDiameter, type Vessel } from '~core/mould/gauge/vessel'
import type { BatchFill } from '~core/plan/types'

/**
 * Layout of the cut drawing: bucket and moulds of one batch side by side, to one scale, standing on one table. Units:
 * the drawing's own.
 */
interface CutMould {
  readonly x: number
  readonly width: number
  readonly depth: number
  readonly wall: number
  readonly name: string
  readonly count: number
  readonly volume: number
  readonly material: string
  /** Its own inside, from lip to lip, from its left lip at the rim. */
  readonly inside: readonly { readonly x: number, readonly y: number }[]
}
interface CutLevel {
  readonly id: 'water' | 'final' | 'safe'
  readonly y: number
  readonly half: number /** Height of its label, moved so that labels do not touch. */
  readonly labelY: number
  readonly height: number
}

export interface Cut {
  /** Drawing units per metre. */
  readonly scale: number
  readonly height: number
  readonly table: number
  readonly bucket?: {
    readonly centre: number
    readonly bottom: number
    readonly top: number
    readonly rim: number
    readonly levels: readonly CutLevel[]
  }
  readonly moulds: readonly CutMould[]
  readonly hidden: number
}

export const CUT = { width: 560, drawn: 215, foot: 46, head: 14, left: 122, right: 128, label: 42, most: 4 } as const

interface Levels { readonly water?: number, readonly final: number, readonly safe: number }

function spread(levels: readonly Omit<CutLevel, 'labelY'>[], lowest: number): CutLevel[] {
  // From the table upwards, each label at least its own height above the one below.
  let floor = lowest + CUT.label
  return [...levels].sort((a, b) => b.y - a.y).map((level) => {
    const labelY = Math.min(level.y, floor - CUT.label)
    floor = labelY
    return { ...level, labelY }
  })
}

/** @param vessel the bucket, if one is used; @param levels inside heights in metres. */
export function layoutCut(fills: readonly BatchFill[], vessel: Vessel | undefined, levels: Levels | undefined): Cut {
  const shown = fills.slice(0, CUT.most)
  const inside = shown.map(f => ({
    fill: f,
    width: f.mould.mouth.width,
    profile: profileOf(f.mould),
  }))
  const bucketWidth = vessel ? Math.max(vessel.bottom, vessel.top) : 0
  const mouldsWidth = inside.reduce((w, m) => w + m.width + 2 * m.fill.mould.wall, 0)
  const tallest = Math.max(vessel?.height ?? 0, ...inside.map(m => m.profile.depth + m.fill.mould.wall))
  const gap = 22
  const free = CUT.width - (vessel ? CUT.left + CUT.right : 0) - gap * (shown.length + 1)
  const scale = Math.min(free / Math.max(1e-6, bucketWidth + mouldsWidth), CUT.drawn / tallest)
  const drawn = Math.max(tallest * scale, 40)
  const marks = vessel && levels
    ? spread(
        (['water', 'final', 'safe'] as const).flatMap((id) => {
          const height = levels[id]
          return height === undefined
            ? []
            : [{ id, height, y: -height * scale, half: vesselDiameter(vessel, height) * scale / 2 }]
        }),
        0,
      )
    : []
  // Stacked labels of a shallow bucket may stand higher than its rim.
  const table = CUT.head + Math.max(drawn, 20 - Math.min(0, ...marks.map(m => m.labelY)))
  const centre = CUT.left + bucketWidth * scale / 2
  let x = vessel
    ? CUT.left + CUT.right + bucketWidth * scale + gap
    : (CUT.width - mouldsWidth * scale - gap * (shown.length - 1)) / 2
  const moulds = inside.map(({ fill, width, profile }) => {
    const wall = Math.max(2, fill.mould.wall * scale)
    const mould = {
      x,
      width: width * scale,
      depth: profile.depth * scale,
      material: fill.mould.material,
      inside: profile.points.map(p => ({ x: (p.x + width / 2) * scale, y: p.z * scale })),
      wall,
      name: fill.mould.name,
      count: fill.copies,
      volume: fill.mould.volume.value,
    }
    x += width * scale + 2 * wall + gap
    return mould
  })
  return {
    scale, table, moulds, height: table + CUT.foot, hidden: fills.length - shown.length,
    bucket: vessel && {
      centre, bottom: vessel.bottom * scale / 2, top: vessel.top * scale / 2, rim: table - vessel.height * scale,
      levels: marks.map(m => ({ ...m, y: table + m.y, labelY: table + m.labelY })),
    },
  }
}
