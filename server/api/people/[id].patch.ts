import { changePerson } from '../../store/people'
import { DONE, found, serve } from '../../route'

export default serve('PATCH people/:id', async ({ scope, person, params, body }) => {
  found(await changePerson(scope, params.id, body, person.name), 'There is no such person in this workshop.')
  return DONE
})
