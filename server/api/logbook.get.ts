import { setResponseHeaders } from 'h3'
import { Readable } from 'node:stream'
import { CSV_MARK, csvRow } from '~core/formats/csv'
import { LOGBOOK_HEAD, logbookRows } from '~core/formats/logbook-table'
import { logbookPages } from '../store/pours'
import { serve } from '../route'

/** The whole logbook as a table, a page at a time, so that its length does not matter. */
export default serve('GET logbook', async ({ event, scope }) => {
  setResponseHeaders(event, {
    'content-type': 'text/csv; charset=utf-8',
    'content-disposition': 'attachment; filename="logbook.csv"',
    'cache-control': 'no-store',
    'vary': 'cookie',
  })
  async function* lines() {
    yield CSV_MARK + csvRow(LOGBOOK_HEAD)
    for await (const page of logbookPages(scope))
      yield page.flatMap(({ summary, casts }) => logbookRows(summary, casts).map(csvRow)).join('')
  }
  return Readable.from(lines())
})
