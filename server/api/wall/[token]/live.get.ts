import { tokenSchema } from '~contract/link'
import { z } from '~contract/zod'
import { workshopOfLink } from '../../../store/links'
import { streamOf } from '../../../live/stream'
import { found, openRoute } from '../../../route'

/** The stream of a wall display: that something changed, never what. It ends when its link is taken back. */
export default openRoute({ params: z.object({ token: tokenSchema }) }, async ({ event, db, params }) => {
  const workshop = found(await workshopOfLink(db, params.token, 'wall'), 'This link was taken back. Ask for a new one.')
  return streamOf(event, workshop.id, workshop.eventSeq, async (message) => {
    if (message.what === 'people' && !await workshopOfLink(db, params.token, 'wall')) return 'end'
    return message.what === 'pour' || message.what === 'clock' ? { what: message.what } : undefined
  })
})
