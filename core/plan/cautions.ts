import { ADDITIONS } from '../gypsum/additions'
import { endUse } from '../gypsum/end-use'
import { powderClass } from '../gypsum/powders'
import { formatDuration } from '../units/format'
import type { CentreMoments } from '../setting/moments'
import type { Plan, PlanWorld } from './plan'

export interface Caution { readonly id: string, readonly sentence: string }

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
  const hot = setting && setting.above43 >= 60
    ? ` Inside, this one stays above 43 °C for about ${
      formatDuration(Math.round(setting.above43 / 300) * 300 || 60, 'minute')
    }.`
    : ''
  const list: Caution[] = [
    {
      id: 'skin',
      sentence:
        `Never set plaster around a hand or any skin: it heats as it hardens, burns deeply and cannot be pulled off.${hot}`,
    },
    { id: 'dust', sentence: 'Mask on from opening the bag until the powder is wet.' },
    { id: 'drain', sentence: 'Nothing down a drain: it sets under water.' },
  ]
  if (powderClass(plan.classId).family === 'investment')
    list.unshift({
      id: 'silica',
      sentence:
        'Silica dust harms the lungs for good: fitted respirator, extraction, wet clean-up, never sweep it dry.',
    })
  for (const { id } of plan.additions) {
    const kind = ADDITIONS.find(a => a.id === id)
    if (kind?.caution && !list.some(c => c.sentence === kind.caution)) list.unshift({ id, sentence: kind.caution })
  }
  const use = endUse(plan.endUse)
  if (use.caution) list.push({ id: use.id, sentence: use.caution })
  const materials = new Set(plan.fills.map(f => world.moulds.find(m => m.id === f.mould)?.material))
  if (materials.has('glass'))
    list.push({ id: 'glass', sentence: 'A glass mould can break in opening: gloves and eye protection.' })
  if (plan.stir.tool === 'drill')
    list.push({ id: 'drill', sentence: 'Drill on a dry, earthed supply; start and stop the paddle under the surface.' })
  list.push({ id: 'sheet', sentence: 'The data sheet of your powder comes before anything said here.' })
  return list
}
