import type { Addition } from '../gypsum/additions'
import type { MouldMaterial } from '../setting/body'

/** Common practice of readying and opening, no source. Sentences: words.ts. */

/**
 * What has to lie between a mould and what is poured. Only the last four are release in the sense that it can be
 * missing.
 */
export type Release = 'none' | 'usually-none' | 'talc' | 'soap-or-grease' | 'thin-film' | 'seal-and-film' | 'always'

/** Why, where it is not told by the material alone. */
export interface ReleaseRule { readonly release: Release, readonly material: MouldMaterial, readonly polymer: boolean }

const RELEASES: Readonly<Record<MouldMaterial, Release>> = {
  'silicone': 'none',
  'polyurethane': 'usually-none',
  'latex': 'talc',
  'plaster': 'soap-or-grease',
  'plastic': 'thin-film',
  'glass': 'thin-film',
  'metal': 'thin-film',
  'wood': 'seal-and-film',
  'clay': 'none',
  'soft-impression': 'none',
  'tray-impression': 'none',
  'thermoplastic': 'thin-film',
  'ground': 'none',
}

/** What has to lie between a mould of this material and what is poured. Polymer in the mix bonds to polyurethane. */
export function releaseRule(
  material: MouldMaterial,
  poured: { readonly additions: readonly Addition[] },
): ReleaseRule {
  const polymer = poured.additions.some(a => a.id === 'polymer' && a.share > 0)
  const release = material === 'polyurethane' && polymer ? 'always' : RELEASES[material]
  return { release, material, polymer }
}

/**
 * Whether a cast can stick because release was left out: talc is for the mould itself, and some moulds need nothing.
 */
export function needsRelease({ release }: ReleaseRule): boolean {
  return release === 'soap-or-grease' || release === 'thin-film' || release === 'seal-and-film' || release === 'always'
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

export type ReadyItem
  = | { readonly code: 'halves', /** 0: taped. */ readonly straps: number }
    | {
      readonly code:
        | 'ground'
        | 'soft-impression'
        | 'tray-impression'
        | 'clean'
        | 'cradle'
        | 'pour-hole'
        | 'torn'
        | 'worn-out'
        | 'thin-parts'
        | 'level'
    }
    | { readonly code: 'release', readonly rule: ReleaseRule }

/** How near the end of its life a mould is looked over for it. */
const NEARLY_WORN = 0.9
/** More than a tired hand reads. */
const MOST_ITEMS = 5

/** What has to be done to the face that is poured against. */
function faceItem(rule: ReleaseRule): ReadyItem {
  const { material } = rule
  if (material === 'ground' || material === 'soft-impression' || material === 'tray-impression') return { code: material }
  return rule.release === 'none' ? { code: 'clean' } : { code: 'release', rule }
}

/** What to look at before this mould is poured: its own list, short, the likeliest failure first. */
export function readinessOf(m: ReadyFacts, poured: { readonly additions: readonly Addition[] }): readonly ReadyItem[] {
  const list: readonly (ReadyItem | false | undefined)[] = [
    (m.halves ?? 1) > 1 && { code: 'halves', straps: m.straps ?? 0 },
    faceItem(releaseRule(m.material, poured)),
    m.cradle && { code: 'cradle' },
    Boolean(m.pourHole) && { code: 'pour-hole' },
    m.wear?.some(w => w.tear) && { code: 'torn' },
    Boolean(m.life && m.uses && m.uses >= NEARLY_WORN * m.life) && { code: 'worn-out' },
    m.fragile && { code: 'thin-parts' },
    { code: 'level' },
  ]
  return list.filter(item => item !== undefined && item !== false).slice(0, MOST_ITEMS)
}

/** Expected life when nobody has said: pours before detail is lost (common practice, wide). */
export const USUAL_LIFE: Readonly<Partial<Record<MouldMaterial, number>>> = {
  'silicone': 60,
  'polyurethane': 100,
  'latex': 40,
  'plaster': 30,
  'soft-impression': 1,
  'tray-impression': 2,
  'thermoplastic': 30,
  'clay': 1,
  'ground': 1,
}
