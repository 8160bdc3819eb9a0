import { newLinkSchema } from '~contract/link'
import { makeLink } from '../../store/links'
import { route } from '../../route'

export default route(
  'owner',
  { body: newLinkSchema },
  ({ scope, body }) =>
    makeLink(scope, body.kind, body.name),
)
