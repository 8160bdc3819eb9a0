import { browserSupportsWebAuthn, startAuthentication, startRegistration, WebAuthnError } from '@simplewebauthn/browser'
import { ask, Refused } from '~/sync/api'

type ToMake = Parameters<typeof startRegistration>[0]['optionsJSON']
type ToUse = Parameters<typeof startAuthentication>[0]['optionsJSON']

/** Whether this page could have passkeys at all: the browser knows them, and the way here is not read by others. */
export const knowsPasskeys = () => isSecureContext && browserSupportsWebAuthn()
/** Keys belong to a name; an address of digits has none. */
export const hasName = () => !/^[\d.]+$|^\[/.test(location.hostname)

/** What the device said, as a sentence; whoever changed their mind is told nothing was done. */
function sayWhy(error: unknown, undone: string): never {
  if (error instanceof WebAuthnError && error.code === 'ERROR_AUTHENTICATOR_PREVIOUSLY_REGISTERED')
    throw new Refused('This device has a passkey for you already.', 0)
  if (error instanceof Refused) throw error
  throw new Refused(undone, 0)
}

/** Has this device make a key, and tells the server its public half. */
export async function makePasskey(password: string, name: string): Promise<void> {
  const optionsJSON = await ask('POST account/passkeys/asked', { body: { password } }) as unknown as ToMake
  const key = await startRegistration({ optionsJSON }).catch(e => sayWhy(e, 'No passkey was made.'))
  await ask('POST account/passkeys', { body: { name, key: { ...key, clientExtensionResults: {} } } })
}

/** Signs in with a key that this device holds. */
export async function usePasskey(): Promise<void> {
  const optionsJSON = await ask('POST session/passkey/asked') as unknown as ToUse
  const use = await startAuthentication({ optionsJSON })
    .catch(e => sayWhy(e, 'No passkey was used. You can sign in with your password.'))
  await ask('POST session/passkey', { body: { ...use, clientExtensionResults: {} } })
}
