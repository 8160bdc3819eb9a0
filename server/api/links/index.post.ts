import { writeAudit } from '../../store/audit'
import { makeLink } from '../../store/links'
import { serve } from '../../route'

export default serve('POST links', async ({ scope, person, body }) => {
  const link = await makeLink(scope, body.kind, body.name)
  await writeAudit(scope, { code: 'link-made', who: person.name, about: body.name })
  return link
})
