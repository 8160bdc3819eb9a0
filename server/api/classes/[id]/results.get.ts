import { setResponseHeaders } from 'h3'
import { resultsTable } from '../../../formats/class-results'
import { ledClass } from '../../../lead'
import { serve } from '../../../route'
import { seatsOf } from '../../../store/classrooms'

/** What came of all tasks, one line a seat and task. */
export default serve('GET classes/:id/results', async ({ event, scope, person, params }) => {
  const row = await ledClass(scope, params.id, person)
  setResponseHeaders(event, {
    'content-type': 'text/csv; charset=utf-8',
    'content-disposition': 'attachment; filename="results.csv"',
    'cache-control': 'no-store',
  })
  return resultsTable(await seatsOf(scope, row.id, row.kit !== null))
})
