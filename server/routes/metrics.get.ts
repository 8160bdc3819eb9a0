import { defineEventHandler, setResponseHeader } from 'h3'
import { trustOf } from '../auth/door'
import { database } from '../database'
import { openStreams } from '../live/hub'
import { metricsText, registry } from '../metrics'
import { refuse } from '../route'

/** On this machine alone: what is going on is nobody else’s business. */
export default defineEventHandler(async (event) => {
  if (trustOf(event) !== 'own') throw refuse(404, 'There is nothing here.')
  setResponseHeader(event, 'content-type', registry.contentType)
  return metricsText((await database()).pool, openStreams())
})
