import { seated } from '../../auth/seat'
import { DONE, serve } from '../../route'
import { isClassOver, tellDoing } from '../../store/seats'

export default serve('PUT seat/doing', async ({ event, db, body }) => {
  const here = await seated(event, db)
  if (!isClassOver(here)) await tellDoing(db, here, body)
  return DONE
})
