import { defineNitroPlugin, useRuntimeConfig } from '#imports'
import { homeAddresses } from '../database'
import { listenAgain } from '../live/hub'

/** Listens to the databases from the start on, and not only from the first page that is opened. */
export default defineNitroPlugin(() => {
  // While the product is built its server runs for a moment, without a database.
  if (!useRuntimeConfig().databaseUrl) return
  for (const home of [null, ...Object.keys(homeAddresses())]) void listenAgain(home)
})
