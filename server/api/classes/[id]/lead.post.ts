import { ledClass } from '../../../lead'
import { Refused } from '../../../refused'
import { DONE, serve } from '../../../route'
import { kitOf, leadKits } from '../../../store/classrooms'

/** All kits without a phone go through the same step together. */
export default serve('POST classes/:id/lead', async ({ scope, db, person, params, body, now }) => {
  const row = await ledClass(scope, params.id, person), kit = kitOf(row)
  if (!kit) throw new Refused('no-kit')
  await leadKits(scope, db, params.id, kit.run, body.step, now)
  return DONE
})
