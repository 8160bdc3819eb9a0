import { z } from 'zod'
import en from 'zod/v4/locales/en.js'

// The strict content security policy forbids compiled code: parse without it.
z.config({ jitless: true })

const library = en().localeError
/**
 * What the library itself says of a value, as a sentence with its place; what a schema says in our own words stands.
 * @example schema.safeParse(value, { error: plainly })
 */
export function plainly(issue: z.core.$ZodRawIssue): string {
  const said = library(issue), place = issue.path?.join('.')
  return `This could not be read${place ? ` at “${place}”` : ''}: ${typeof said === 'string' ? said : said?.message}.`
}

export { z }
