import { POWDER_CLASSES, type PowderClassId } from '~core/gypsum/powders'
import { z } from './zod'

/** Which class a powder is of, by its id. */
export const powderClassIdSchema = z.enum(POWDER_CLASSES.map(p => p.id) as [PowderClassId, ...PowderClassId[]])
