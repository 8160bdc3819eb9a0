import { classFor } from '../../../lead'
import { serve } from '../../../route'
import { classAnswer } from '../../../store/classrooms'
import { people } from '../../../store/people'

export default serve('GET classes/:id', async ({ scope, person, params }) => {
  const { row, leads } = await classFor(scope, params.id, person)
  const teacher = (await people(scope, false)).find(p => p.id === row.teacher)
  return { ...await classAnswer(scope, row, leads, Date.now()), teacher: teacher?.name ?? 'Somebody who left' }
})
