import { heldLink } from '../../../auth/tickets'
import { workshopOfLink } from '../../../store/links'
import { streamOf } from '../../../live/stream'
import { serve } from '../../../route'

const SEEN: ReadonlySet<string> = new Set(['pour', 'library', 'clock'])

/** The stream of a wall display: that something changed, never what. It ends when its link is taken back. */
export default serve('GET wall/:token/live', async ({ event, db, params }) => {
  const workshop = await heldLink(event, db, params.token, 'wall')
  return streamOf(event, { workshop: workshop.id, home: workshop.home }, async (message) => {
    if (message.what === 'people' && !await workshopOfLink(db, params.token, 'wall')) return 'end'
    return SEEN.has(message.what) ? { what: message.what } : undefined
  })
})
