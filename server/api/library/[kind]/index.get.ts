import { z } from '~contract/zod'
import { LIBRARY_KINDS } from '~contract/library'
import { libraryItems } from '../../../store/library'
import { route } from '../../../route'

export default route(
  'viewer',
  { params: z.object({ kind: z.enum(LIBRARY_KINDS) }) },
  ({ scope, params }) => libraryItems(scope, params.kind),
)
