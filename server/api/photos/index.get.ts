import { photosOf } from '../../store/photos'
import { serve } from '../../route'

/** The photos of a mould or a cast, without their pictures. */
export default serve('GET photos', async ({ scope, query }) => photosOf(scope, query))
