import type { MouldMaterial } from '../setting/body'
import type { Addition } from '../gypsum/additions'

/** Common practice of readying and opening, no source. */

export interface ReleaseRule { readonly needs: string, readonly why: string }

/** What has to lie between a mould of this material and what is poured, and why. */
export function releaseRule(mould: MouldMaterial, poured: { readonly additions: readonly Addition[] }): ReleaseRule {
  const polymer = poured.additions.some(a => a.id === 'polymer' && a.share > 0)
  switch (mould) {
    case 'silicone':
      return {
        needs: polymer ? 'None, usually' : 'None',
        why: 'nothing sticks to silicone but silicone; a release only prints.',
      }
    case 'polyurethane':
      return polymer
        ? { needs: 'Release, always', why: 'polymer in the mix bonds to polyurethane.' }
        : { needs: 'Usually none', why: 'plain plaster lets go of it; when in doubt, a breath of spray.' }
    case 'latex':
      return { needs: 'Talc as you peel', why: 'latex sticks to itself, not to plaster.' }
    case 'plaster':
      return { needs: 'Soap or grease, to a shine', why: 'plaster bonds to bare plaster for good.' }
    case 'plastic':
    case 'glass':
    case 'metal':
      return {
        needs: 'A very thin, even film',
        why: 'it does not stick, but suction holds it; every streak of jelly prints.',
      }
    case 'wood':
      return { needs: 'Seal, then a thin film', why: 'bare wood drinks water, swells and grips.' }
    case 'clay':
      return { needs: 'None', why: 'the clay comes off wet; take it out soon after set, before it dries.' }
    case 'soft-impression':
      return { needs: 'None', why: 'it is torn away. Pour the same day, before it dries and shrinks.' }
    case 'ground':
      return { needs: 'None', why: 'the print is lifted with its soil.' }
  }
}

/** The rule as one sentence. */
export function releaseSentence(mould: MouldMaterial): string {
  const { needs, why } = releaseRule(mould, { additions: [] })
  return `Release: ${needs.charAt(0).toLowerCase()}${needs.slice(1)}; ${why}`
}

export interface ReadyFacts {
  readonly material: MouldMaterial
  readonly halves?: number
  readonly straps?: number
  readonly cradle?: boolean
  readonly pourHole?: number
  readonly fragile: boolean
  readonly wear?: readonly { readonly tear: boolean }[]
  readonly uses?: number
  readonly life?: number
}

/** What to look at before this mould is poured: its own list, short, the likeliest failure first. */
export function readinessOf(m: ReadyFacts, poured: { readonly additions: readonly Addition[] }): readonly string[] {
  const list: string[] = []
  const rule = releaseRule(m.material, poured)
  if ((m.halves ?? 1) > 1)
    list.push(
      m.straps
        ? `Halves keyed; ${m.straps === 1 ? 'its strap' : `all ${m.straps} straps`} on, snug and not squeezing.`
        : 'Halves keyed and taped without stretch; not squeezed.',
    )
  if (m.material === 'ground')
    list.push(
      'Photographed from straight above with a ruler. Ring pressed in and sealed; at least 13 mm of plaster above the ground.',
    )
  else if (m.material === 'soft-impression') list.push('Crumbs out. Wet, no puddle, poured today.')
  else if (!/^None/.test(rule.needs)) list.push(`${rule.needs}: ${rule.why}`)
  else list.push('Clean and dry; last cast’s crumbs out of the corners.')
  if (m.cradle) list.push('Soft mould in its cradle.')
  if (m.pourHole) list.push('Pour hole and vents clear.')
  if (m.wear?.some(w => w.tear)) list.push('Torn before: look at the tear and its tear-stop.')
  if (m.life && m.uses && m.uses >= 0.9 * m.life)
    list.push('Near the end of its expected life: look it over, and think of the next.')
  if (m.fragile) list.push('Thin parts: talc or a breath of release in the tips, brush in the first coat.')
  list.push('Level, and not to be moved again.')
  return list.slice(0, 5)
}

/** Expected life when nobody has said: pours before detail is lost (common practice, wide). */
export const USUAL_LIFE: Readonly<Partial<Record<MouldMaterial, number>>> = {
  'silicone': 60,
  'polyurethane': 100,
  'latex': 40,
  'plaster': 30,
  'soft-impression': 1,
  'clay': 1,
  'ground': 1,
}
