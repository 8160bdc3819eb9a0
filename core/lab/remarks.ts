import { additionKind, type AdditionId, type Sureness } from '../gypsum/additions'
import { CHEMICAL_WATER } from '../gypsum/mix'
import { waterForGrains } from '../gypsum/paste'
import { powderClass, type Span } from '../gypsum/powders'
import { turnsOf } from '../gypsum/stirring'
import { freshStiffness, settingProblem, type SettingProblem } from '../setting/setting-mix'
import { labInput, type LabMix } from './mix'

/** Why a lab mix cannot be worked out; `range` is the ratio at which its powder is used. */
export type LabRefusal
  = | { readonly code: 'cannot-work-out', readonly why: SettingProblem }
    | { readonly code: 'no-liquid-water' }
    | { readonly code: 'too-little-water', readonly bound: number, readonly range: Span }
    | { readonly code: 'jams', readonly additions: boolean, readonly range: Span }

/** Where a lab mix leaves what the model was checked for, or what is known of an addition. */
export type LabRemark
  = | { readonly code: 'outside-ratio', readonly range: Span }
    | {
      readonly code: 'outside-temperatures' | 'outside-stirring' | 'outside-thickness' | 'outside-dirt'
    }
    | { readonly code: 'too-much-of' | 'direction-only' | 'order-of-magnitude' | 'saying', readonly addition: AdditionId }

export interface LabRemarks {
  readonly refusal?: LabRefusal
  readonly remarks: readonly LabRemark[]
}

/** Within what the setting model was held against handbook tables (docs/model.md). */
const SURE_CODES = {
  'physics': 'order-of-magnitude', 'order of magnitude': 'order-of-magnitude', 'direction only': 'direction-only',
  'saying': 'saying',
} as const satisfies Record<Sureness, string>
const CHECKED = {
  water: { low: 3, high: 60 },
  room: { low: 3, high: 40 },
  turns: { low: 20, high: 400 },
  section: { low: 0.004, high: 0.15 },
  dirt: 0.03,
} as const
const outside = (value: number, { low, high }: Span) => value < low || value > high

/** The ratios at which a powder is used, with the water that grains in it want. */
function rangeOf({ classId, additions }: LabMix): Span {
  const { low, high } = powderClass(classId).ratio, more = waterForGrains({ additions })
  return { low: low + more.low, high: high + more.high }
}

function refusalOf(mix: LabMix): LabRefusal | undefined {
  const powder = powderClass(mix.classId), range = rangeOf(mix), bound = powder.purity * CHEMICAL_WATER
  const why = settingProblem({ ...labInput(mix), ratio: mix.ratio })
  if (why) return { code: 'cannot-work-out', why }
  if (mix.waterTemperature <= 0 || mix.waterTemperature >= 100) return { code: 'no-liquid-water' }
  if (mix.ratio <= bound) return { code: 'too-little-water', bound, range }
  if (!freshStiffness(powder, mix.ratio, mix.additions).flows)
    return { code: 'jams', additions: mix.additions.length > 0, range }
  return undefined
}

/** What stands in the way of a lab mix, and where it leaves what the model was checked for. */
export function labRemarks(mix: LabMix): LabRemarks {
  const refusal = refusalOf(mix)
  if (refusal) return { refusal, remarks: [] }
  const range = rangeOf(mix), remarks: LabRemark[] = []
  if (outside(mix.ratio, { low: range.low - 1e-9, high: range.high + 1e-9 }))
    remarks.push({ code: 'outside-ratio', range })
  if (outside(mix.waterTemperature, CHECKED.water) || outside(mix.roomTemperature, CHECKED.room))
    remarks.push({ code: 'outside-temperatures' })
  if (outside(turnsOf(mix.stir), CHECKED.turns)) remarks.push({ code: 'outside-stirring' })
  if (outside(mix.section, CHECKED.section)) remarks.push({ code: 'outside-thickness' })
  if (mix.dirt > CHECKED.dirt) remarks.push({ code: 'outside-dirt' })
  for (const { id, share } of mix.additions) {
    const { harmful, sure } = additionKind(id)
    if (share > harmful + 1e-9) remarks.push({ code: 'too-much-of', addition: id })
    else if (sure !== 'physics')
      remarks.push({ code: SURE_CODES[sure], addition: id })
  }
  return { remarks }
}
