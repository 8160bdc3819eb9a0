import { defineEventHandler, setResponseStatus } from 'h3'
import { askedAt } from '../asked-at'

const NOT_SAID = 'The request does not say which address it was sent to. Open the workshop’s page anew.'

/**
 * A request whose host is no address is answered here, and by hand: whatever goes wrong later is told by its address.
 */
export default defineEventHandler((event) => {
  if (askedAt(event)) return
  setResponseStatus(event, 400)
  return { error: true, statusCode: 400, data: { sentence: NOT_SAID } }
})
