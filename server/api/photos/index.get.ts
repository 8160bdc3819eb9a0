import { photoSubjectSchema } from '~contract/photo'
import { photosOf } from '../../store/photos'
import { route } from '../../route'

/** The photos of a mould or a cast, without their pictures. */
export default route('viewer', { query: photoSubjectSchema }, async ({ scope, query }) => photosOf(scope, query))
