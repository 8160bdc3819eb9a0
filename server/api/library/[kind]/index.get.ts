import { z } from '~shared/zod'
import { LIBRARY_KINDS } from '~shared/library'
import { libraryItems } from '../../../db/library'
import { route } from '../../../route'

export default route('viewer', { params: z.object({ kind: z.enum(LIBRARY_KINDS) }) }, ({ scope, params }) => libraryItems(scope, params.kind))
