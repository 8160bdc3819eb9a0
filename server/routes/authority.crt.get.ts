import { defineEventHandler, setResponseHeaders, setResponseStatus } from 'h3'
import { shared } from '../auth/shared'

/** The workshop's authority as phones install it: RFC 5280's encoding, under the type they know it by. */
export default defineEventHandler((event) => {
  const pem = shared()?.authority
  if (!pem) {
    setResponseStatus(event, 404)
    return 'This server is not shared on the network.'
  }
  setResponseHeaders(event, {
    'content-type': 'application/x-x509-ca-cert',
    'content-disposition': 'attachment; filename="nine-ripples.crt"',
    'cache-control': 'no-store',
  })
  return Buffer.from(pem.replace(/-----[^-]+-----|\s/g, ''), 'base64')
})
