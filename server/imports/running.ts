import { rm } from 'node:fs/promises'
import { Worker } from 'node:worker_threads'
import PQueue from 'p-queue'
import { useRuntimeConfig } from '#imports'
import { homeAddresses } from '../database'
import { HERE } from '../store/homes'
import type { Db } from '../store/open'
import { importBroke, tellImport } from '../store/imports'
import { within } from '../store/scope'
import { isWalled } from '../store/second-wall'
import { importFaultWords } from './words'
import type { Order } from './work'

/** Two at once; the others wait their turn. */
const queue = new PQueue({ concurrency: 2 })
/** What one may take: memory in megabytes, and time. */
const MOST_MB = 1500, MOST_MS = 4 * 3_600_000
/** Waiting ones say that they still do, ms. */
const WAITING_BEAT_MS = 15_000

/** Built, it lies beside the server (nuxt.config.ts); under `npm run dev` it is run as it is written. */
const source = process.env.IMPORTS_THREAD
const asWritten = source
  ? `import('tsx/esm/api').then(tsx => tsx.tsImport('${source}', '${source}'))`
  : undefined

/** In a thread of its own. @returns why it broke off, if it did not end by itself */
function inThread(db: Db, order: Order): Promise<string | undefined> {
  return new Promise((resolve) => {
    const { databaseUrl } = useRuntimeConfig(), { home, moving } = order.place ?? HERE
    const workerData = {
      databaseUrl, homes: homeAddresses(), walled: isWalled(db), order: { ...order, place: { home, moving } },
    }
    const worker = new Worker(asWritten ?? new URL('./imports.mjs', import.meta.url), {
      eval: asWritten !== undefined,
      workerData,
      resourceLimits: { maxOldGenerationSizeMb: MOST_MB },
    })
    // It keeps no server from ending: what it left half done is told when somebody looks next.
    worker.unref()
    const timer = setTimeout(() => {
      resolve('too-long')
      void worker.terminate()
    }, MOST_MS).unref()
    worker.on('error', (error: NodeJS.ErrnoException) => {
      console.error(error)
      resolve(error.code ?? 'broke')
    })
    worker.on('exit', (code) => {
      clearTimeout(timer)
      resolve(code === 0 ? undefined : 'broke')
    })
  })
}

/**
 * Sets one to work; it goes on by itself. @param folder in which its file lies, which goes when it has ended
 */
export function setToWork(db: Db, order: Order, folder?: string): void {
  const scope = within(db, order.workshop, order.place)
  const beat = setInterval(() => void tellImport(scope, order.job).catch(() => {}), WAITING_BEAT_MS).unref()
  void queue.add(async () => {
    clearInterval(beat)
    const broke = await inThread(db, order)
    if (broke !== undefined) await importBroke(scope, order.job, { sentence: importFaultWords(broke) })
  }).catch((error: unknown) => console.error(error)).finally(() => {
    if (folder) void rm(folder, { recursive: true, force: true })
  })
}
