import { newLinkSchema } from '~contract/link'
import { makeLink, TooManyLinks } from '../../store/links'
import { refuse, route } from '../../route'

export default route(
  'owner',
  { body: newLinkSchema },
  ({ scope, body }) =>
    makeLink(scope, body.kind, body.name).catch((error) => {
      throw error instanceof TooManyLinks
        ? refuse(409, 'Fifty links are enough. Take back the ones nobody uses.')
        : error
    }),
)
