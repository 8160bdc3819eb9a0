import { workerData } from 'node:worker_threads'
import { connect } from '../store/open'
import { tellImport } from '../store/imports'
import { within } from '../store/scope'
import { carryOut, type Order } from './work'

/** A thread of its own for one import: however large or hostile its file is, nobody else waits for it. */
const { databaseUrl, walled, order } = workerData as
  { readonly databaseUrl: string, readonly walled: boolean, readonly order: Order }

/** Between two times that it says that it is still there, ms. */
const BEAT_MS = 15_000

const { db } = connect(databaseUrl, { limited: true, most: 2, walled }), scope = within(db, order.workshop)
const beat = setInterval(() => void tellImport(scope, order.job).catch(() => {}), BEAT_MS)
try {
  await carryOut(db, order)
}
finally {
  clearInterval(beat)
  await db.destroy()
}
