import { workerData } from 'node:worker_threads'
import { giveHomes } from '../store/homes'
import { connect } from '../store/open'
import { tellImport } from '../store/imports'
import { within } from '../store/scope'
import { carryOut, type Order } from './work'

/** A thread of its own for one import: however large or hostile its file is, nobody else waits for it. */
const { databaseUrl, homes, walled, order } = workerData as {
  readonly databaseUrl: string
  readonly homes: Readonly<Record<string, string>>
  readonly walled: boolean
  readonly order: Order
}

/** Between two times that it says that it is still there, ms. */
const BEAT_MS = 15_000

const open = (url: string) => connect(url, { limited: true, most: 2, walled }).db
const db = open(databaseUrl), home = order.place?.home, address = home ? homes[home] : undefined
const own = address === undefined ? undefined : open(address)
if (home && own) giveHomes(db, new Map([[home, own]]))
const scope = within(db, order.workshop, order.place)
const beat = setInterval(() => void tellImport(scope, order.job).catch(() => {}), BEAT_MS)
try {
  await carryOut(db, order)
}
finally {
  clearInterval(beat)
  await Promise.all([db.destroy(), own?.destroy()])
}
