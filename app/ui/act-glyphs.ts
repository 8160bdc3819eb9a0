import type { Caution } from '~core/plan/cautions'
import type { Stage } from '~core/plan/stages'
import type { CastNeed } from '~core/pour/projection'
import type { GlyphId } from './glyphs'

/** The sign of each stage, beside its word. */
export const STAGE_GLYPHS: Readonly<Record<Stage, GlyphId>> = {
  'gauge': 'moulds', 'ready': 'moulds', 'weigh': 'weigh', 'sift': 'sift', 'soak': 'soak', 'stir': 'stir', 'fill': 'pour',
  'clean-up': 'wash', 'set': 'wait', 'dry': 'dry',
}
/** Of cautions, as far as there is one that says it. */
export const CAUTION_GLYPHS: Readonly<Partial<Record<Caution['code'], GlyphId>>> = {
  skin: 'warm', dust: 'mask', silica: 'mask', drain: 'wash', glass: 'crack', drill: 'stir',
}
/** Of what a cast needs. */
export const CAST_GLYPHS: Readonly<Record<CastNeed, GlyphId>> = {
  'open-late': 'open', 'open-now': 'open', 'judge': 'shelf', 'ready-now': 'dry', 'setting': 'wait', 'drying': 'dry',
  'kept-damp': 'soak', 'none': 'shelf',
}
