import { workshopOfLink } from '../../../store/links'
import { streamOf } from '../../../live/stream'
import { found, serve } from '../../../route'

/** The stream of a wall display: that something changed, never what. It ends when its link is taken back. */
export default serve('GET wall/:token/live', async ({ event, db, params }) => {
  const workshop = found(await workshopOfLink(db, params.token, 'wall'), 'This link was taken back. Ask for a new one.')
  return streamOf(event, workshop.id, async (message) => {
    if (message.what === 'people' && !await workshopOfLink(db, params.token, 'wall')) return 'end'
    return message.what === 'pour' || message.what === 'clock' ? { what: message.what } : undefined
  })
})
