import { ADDITIONS, type AdditionId } from '../gypsum/additions'
import { endUse, type EndUseId } from '../gypsum/end-use'
import { powderClass } from '../gypsum/powders'
import type { CentreMoments } from '../setting/moments'
import type { Seconds } from '../units/quantity'
import type { Plan, PlanWorld } from './types'

export type Caution
  /** `hotFor`: how long the inside stays above 43 degC, where it is a minute or more. */
  = | { readonly code: 'skin', readonly hotFor?: Seconds }
    | { readonly code: 'dust' | 'drain' | 'silica' | 'glass' | 'drill' | 'sheet' }
    | { readonly code: 'addition', readonly addition: AdditionId }
    | { readonly code: 'end-use', readonly endUse: EndUseId }

/** Dust of silica is cautioned of once, whether it comes with the powder or is added. */
const isSilica = (id: AdditionId) => id === 'silica-flour'

/**
 * The cautions that belong to this pour, the gravest first; the product's data sheet and local rules come before any of
 * them.
 * Common practice of the trade; the burn caution follows reports of serious burns from casting around skin.
 */
export function cautionsFor(
  plan: Plan,
  world: PlanWorld,
  setting?: Pick<CentreMoments, 'above43'>,
): readonly Caution[] {
  const investment = powderClass(plan.classId).family === 'investment'
  const added = plan.additions.map(a => a.id)
    .filter(id => ADDITIONS.some(a => a.id === id && a.cautioned) && !(investment && isSilica(id)))
  const use = endUse(plan.endUse)
  const materials = new Set(plan.fills.map(f => world.moulds.find(m => m.id === f.mould)?.material))
  return [
    ...added.map(addition => ({ code: 'addition', addition }) as const).reverse(),
    ...investment ? [{ code: 'silica' } as const] : [],
    { code: 'skin', ...setting && setting.above43 >= 60 && { hotFor: setting.above43 } },
    { code: 'dust' },
    { code: 'drain' },
    ...use.cautioned ? [{ code: 'end-use', endUse: use.id } as const] : [],
    ...materials.has('glass') ? [{ code: 'glass' } as const] : [],
    ...plan.stir.tool === 'drill' ? [{ code: 'drill' } as const] : [],
    { code: 'sheet' },
  ]
}
