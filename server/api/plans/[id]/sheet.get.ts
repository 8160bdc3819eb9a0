import { setResponseHeaders } from 'h3'
import { z } from '~shared/zod'
import { freezing } from '~core/pour/run'
import { benchSheet } from '~core/pour/sheet'
import { savedPlan, worldOf } from '../../../db/library'
import { benchSheetPdf } from '../../../formats/sheet'
import { frozenBetweenOthers } from '../../../freezing'
import { found, refuse, route } from '../../../route'

/** A plan on paper, worked out as it would be for the bench. */
export default route('viewer', { params: z.object({ id: z.uuid() }) }, async ({ event, scope, person, params }) => {
  const plan = found(await savedPlan(scope, params.id), 'There is no such plan in this workshop.')
  const frozen = await frozenBetweenOthers(freezing(plan, await worldOf(scope, plan)))
  if (!frozen.ok) throw refuse(422, frozen.problems[0]?.sentence ?? 'This plan cannot be poured yet.', frozen.problems[0]?.field)
  setResponseHeaders(event, { 'content-type': 'application/pdf', 'content-disposition': 'inline; filename="bench-sheet.pdf"', 'cache-control': 'no-store', 'vary': 'cookie' })
  return Buffer.from(await benchSheetPdf(benchSheet(frozen.run, person.units)))
})
