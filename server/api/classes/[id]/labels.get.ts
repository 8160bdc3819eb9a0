import { kitLabels } from '~core/formats/labels'
import { ledClass } from '../../../lead'
import { sendLabels } from '../../../pdf'
import { Refused } from '../../../refused'
import { serve } from '../../../route'
import { kitOf, seatsOf } from '../../../store/classrooms'

/** A label for each kit, with its number, its name and its colour. */
export default serve('GET classes/:id/labels', async ({ event, scope, person, params }) => {
  const row = await ledClass(scope, params.id, person), kit = kitOf(row)
  if (!kit) throw new Refused('no-kit')
  const seats = (await seatsOf(scope, row.id, true)).flatMap(s => s.kit ? [{ ...s, ...s.kit }] : [])
  return sendLabels(event, kitLabels(seats, kit.run, person.units), `Kits: ${row.name}`)
})
