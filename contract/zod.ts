import { z } from 'zod'

// The strict content security policy forbids compiled code: parse without it.
z.config({ jitless: true })

export { z }
