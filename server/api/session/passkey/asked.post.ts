import { askToSignIn } from '../../../auth/passkeys'
import { serve } from '../../../route'

export default serve('POST session/passkey/asked', ({ event }) => askToSignIn(event))
