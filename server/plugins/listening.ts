import { defineNitroPlugin, useRuntimeConfig } from '#imports'
import { listenAgain } from '../live/hub'

/** Listens to the database from the start on, and not only from the first page that is opened. */
export default defineNitroPlugin(() => {
  // While the product is built its server runs for a moment, without a database.
  if (useRuntimeConfig().databaseUrl) void listenAgain()
})
