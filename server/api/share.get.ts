import { shared } from '../auth/shared'
import { serve } from '../route'

export default serve('GET share', () => ({ share: shared()?.facts }))
