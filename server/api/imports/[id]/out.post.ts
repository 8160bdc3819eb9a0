import { ownImport } from '../../../imports/own'
import { setToWork } from '../../../imports/running'
import { beginTakingOut } from '../../../store/imports'
import { Refused } from '../../../refused'
import { DONE, serve } from '../../../route'

export default serve('POST imports/:id/out', async ({ db, scope, params, person }) => {
  const { counts } = await ownImport(scope, params.id, person)
  if (!await beginTakingOut(scope, params.id)) throw new Refused('imports-under-way')
  setToWork(db, { workshop: person.workshopId, place: person, job: params.id, work: { what: 'out', counts } })
  return DONE
})
