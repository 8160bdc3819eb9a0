import { libraryItems } from '../../../store/library'
import { serve } from '../../../route'

export default serve('GET library/:kind', ({ scope, params }) => libraryItems(scope, params.kind))
