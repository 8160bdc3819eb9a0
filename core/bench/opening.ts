import type { FormId } from '../drawing/form-ids'
import { MOULD_MATERIALS, type MouldMaterial } from '../setting/body'

/**
 * How a mould is opened, in two to four steps, by what it is made of and its form, and when to stop. Common practice,
 * no source. Sentences: words.ts.
 */

export type OpenStep
  = | 'break-seal' | 'flex-suction' | 'turn-out' | 'tap-upside-down' | 'air-under' | 'straps-off' | 'blade-in-seam'
    | 'pull-straight' | 'talc-outside' | 'peel-inside-out' | 'hold-piece' | 'roll-clay' | 'soak-hollows' | 'free-overlaps'
    | 'slit-back' | 'peel-thick-first' | 'thin-parts-last' | 'warm-softens' | 'lift-tray' | 'ease-along' | 'clear-ring'
    | 'undercut-ground' | 'lift-on-board' | 'let-soil-dry' | 'soak-rim'

/** When to leave off: it is not hard enough, or something holds it. */
export type OpenStop = 'wait-quarter' | 'no-second-one' | 'something-holds' | 'once-more-warm'

export interface Opened {
  readonly material: MouldMaterial
  readonly form?: FormId
  readonly halves?: number
  readonly fragile?: boolean
}
export interface Opening { readonly steps: readonly OpenStep[], readonly stop: OpenStop }

/** A tall skin is turned inside out over its piece; talc keeps it from gripping itself. */
const isSleeve = ({ material, form, halves = 1 }: Opened) =>
  halves === 1 && (material === 'latex' || (form === 'sleeve' && MOULD_MATERIALS[material].flexible))

const OF: Partial<Readonly<Record<MouldMaterial, Opening>>> = {
  'clay': { steps: ['roll-clay', 'free-overlaps', 'soak-hollows'], stop: 'something-holds' },
  'soft-impression': { steps: ['slit-back', 'peel-thick-first', 'thin-parts-last'], stop: 'no-second-one' },
  'tray-impression': { steps: ['free-overlaps', 'lift-tray', 'ease-along'], stop: 'no-second-one' },
  'thermoplastic': { steps: ['break-seal', 'warm-softens', 'ease-along'], stop: 'once-more-warm' },
  'ground': { steps: ['clear-ring', 'undercut-ground', 'lift-on-board', 'let-soil-dry'], stop: 'no-second-one' },
}

/**
 * How this mould is opened.
 * @example openingOf({ material: 'latex' }).steps // ['talc-outside', 'peel-inside-out', 'hold-piece']
 */
export function openingOf(mould: Opened): Opening {
  const { material, halves = 1, fragile } = mould, own = OF[material]
  if (own) return own
  if (halves > 1) return { steps: ['straps-off', 'blade-in-seam', 'pull-straight'], stop: 'something-holds' }
  if (isSleeve(mould)) return { steps: ['talc-outside', 'peel-inside-out', 'hold-piece'], stop: 'wait-quarter' }
  if (MOULD_MATERIALS[material].flexible) return {
    steps: ['break-seal', 'flex-suction', ...fragile ? ['thin-parts-last'] as const : [], 'turn-out'], stop: 'wait-quarter',
  }
  return material === 'plaster'
    ? { steps: ['soak-rim', 'tap-upside-down', 'air-under'], stop: 'something-holds' }
    : { steps: ['break-seal', 'tap-upside-down', 'air-under'], stop: 'wait-quarter' }
}
