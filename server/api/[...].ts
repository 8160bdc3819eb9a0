import { defineEventHandler } from 'h3'
import { refuse } from '../route'

/** Addresses that do not exist get a sentence, not the application's page. */
export default defineEventHandler(() => {
  throw refuse(404, 'There is nothing at this address.')
})
