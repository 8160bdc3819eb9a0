import { castsPerBatch, freezing } from '~core/plan/run'
import { EVENT_VERSION } from '~core/pour/events'
import type { SentEvent } from '~contract/pour'
import { notYet } from '../../frozen-plan'
import { worldOf } from '../../store/library'
import { pourWithEvents } from '../../store/pours'
import { startPour } from '../../store/recording'
import { frozenBetweenOthers } from '../../freezing'
import { Refused } from '../../refused'
import { found, refuse, serve } from '../../route'

/**
 * Takes a plan to the bench: worked out here and frozen with the model's version. From the workshop's own moulds,
 * bucket and bag, or from those that a browser had when it began the pour without asking.
 */
export default serve('POST pours', async ({ scope, person, body, now }) => {
  if (body.person !== undefined && body.person !== person.id) throw refuse(
    401,
    'This pour was begun by someone else. It waits in this browser until that person signs in again.',
  )
  const world = body.frozen?.world ?? await worldOf(scope, body.plan, now)
  const frozen = await frozenBetweenOthers(freezing(body.plan, world))
  if (!frozen.ok)
    throw notYet(frozen.problems)
  // Its entries name casts by their batch: they must be the same here.
  if (body.frozen && castsPerBatch(frozen.run).join() !== body.frozen.casts.join()) throw new Refused('other-shape')
  const first: SentEvent = {
    id: body.eventId,
    version: EVENT_VERSION,
    kind: 'stage',
    data: { stage: 'ready', from: 'unbegun' },
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
    skewMs: (body.sentAt ?? body.startedAt) - now,
  })
  return found(await pourWithEvents(scope, body.id), 'There is no such pour in this workshop.')
})
