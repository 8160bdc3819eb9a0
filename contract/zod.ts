import { z } from 'zod'
import en from 'zod/v4/locales/en.js'

/** What the library itself says of a value, as a sentence with its place; our own sentences stand as they are. */
const library = en().localeError

z.config({
  // The strict content security policy forbids compiled code: parse without it.
  jitless: true,
  localeError(issue) {
    const said = library(issue), place = issue.path?.join('.')
    return `This could not be read${place ? ` at “${place}”` : ''}: ${typeof said === 'string' ? said : said?.message}.`
  },
})

export { z }
