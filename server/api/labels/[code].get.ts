import { readCode } from '~core/formats/labels'
import { whatCodeNames } from '../../store/labels'
import { found, refuse, serve } from '../../route'

/** What a label's code opens, in this workshop. */
export default serve('GET labels/:code', async ({ scope, params }) => {
  const means = readCode(params.code)
  if (!means) throw refuse(400, 'That is no code of a label here: type it as it is printed, such as 7F3C9A21-1.2.')
  return found(await whatCodeNames(scope, means), 'Nothing in this workshop has this code.')
})
