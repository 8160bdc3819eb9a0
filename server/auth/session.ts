import { getRequestProtocol, type H3Event } from 'h3'
import { clearUserSession, setUserSession } from '#imports'

declare module '#auth-utils' {
  interface User { id: string }
}

/**
 * Seals who it is into the cookie; what they may do is looked up on every request. `secure` follows the connection:
 * plain http on loopback would lose the cookie.
 */
export async function remember(event: H3Event, personId: string): Promise<void> {
  await clearUserSession(event)
  await setUserSession(event, { user: { id: personId } }, {
    cookie: {
      secure: getRequestProtocol(event, { xForwardedProto: true }) === 'https',
      sameSite: 'lax',
      httpOnly: true,
      path: '/',
    },
  })
}
