import { makeLink } from '../../store/links'
import { serve } from '../../route'

export default serve('POST links', ({ scope, body }) =>
  makeLink(scope, body.kind, body.name))
