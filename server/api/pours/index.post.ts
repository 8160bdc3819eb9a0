import { freezing } from '~core/plan/run'
import { notYet } from '../../frozen-plan'
import { worldOf } from '../../store/library'
import { pourWithEvents } from '../../store/pours'
import { startPour } from '../../store/recording'
import { frozenBetweenOthers } from '../../freezing'
import { found, serve } from '../../route'

/**
 * Takes a plan to the bench: worked out here, from the workshop's own moulds, bucket and bag, and frozen with the
 * model's version.
 */
export default serve('POST pours', async ({ scope, person, body, now }) => {
  const frozen = await frozenBetweenOthers(freezing(body.plan, await worldOf(scope, body.plan, now)))
  if (!frozen.ok)
    throw notYet(frozen.problems)
  const first = {
    id: body.eventId,
    version: 1 as const,
    kind: 'stage' as const,
    data: { stage: 'ready' as const },
    batch: 0,
    happenedAt: body.startedAt,
    recordedAt: body.startedAt,
    device: body.device,
    deviceSeq: body.deviceSeq,
  }
  await startPour(scope, {
    id: body.id,
    planId: body.planId,
    run: frozen.run,
    first: [first],
    actor: person.id,
    skewMs: body.startedAt - now,
  })
  return found(await pourWithEvents(scope, body.id), 'There is no such pour in this workshop.')
})
