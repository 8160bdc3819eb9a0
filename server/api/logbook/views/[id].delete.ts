import { dropView } from '../../../store/logbook'
import { DONE, found, serve } from '../../../route'

export default serve('DELETE logbook/views/:id', async ({ scope, params }) => {
  found(await dropView(scope, params.id), 'This view was taken away already.')
  return DONE
})
