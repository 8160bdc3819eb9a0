import type { Here } from './auth/session'
import { Refused } from './refused'
import { found } from './route'
import { leadsClass } from './store/classrooms'
import type { Scope } from './store/scope'

const GONE = 'There is no such class in this workshop; perhaps it was deleted.'

/** A class and whether whoever asks leads it. @throws a 404 */
export async function classFor(scope: Scope, id: string, person: Here) {
  return found(await leadsClass(scope, id, person), GONE)
}

/** A class that whoever asks may lead. @throws a 404, and a 403 for others */
export async function ledClass(scope: Scope, id: string, person: Here) {
  const { row, leads } = await classFor(scope, id, person)
  if (!leads) throw new Refused('not-their-class')
  return row
}
