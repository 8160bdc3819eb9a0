import { setResponseHeaders } from 'h3'
import { benchSheet } from '~core/formats/sheet'
import { benchSheetPdf } from '../../../formats/sheet'
import { frozenPlan } from '../../../frozen-plan'
import { serve } from '../../../route'

/** A plan on paper, worked out as it would be for the bench. */
export default serve('GET plans/:id/sheet', async ({ event, scope, person, params, now }) => {
  const { run } = await frozenPlan(scope, params.id, now)
  setResponseHeaders(event, {
    'content-type': 'application/pdf',
    'content-disposition': 'inline; filename="bench-sheet.pdf"',
    'cache-control': 'no-store',
    'vary': 'cookie',
  })
  return Buffer.from(await benchSheetPdf(benchSheet(run, person.units)))
})
