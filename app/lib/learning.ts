import type { BatchAsked, BatchLearnt, LearnAnswered, LearnAsked } from '~/workers/learn.worker'

let worker: Worker | undefined
let asked = 0
const waiting = new Map<number, (batches: readonly BatchLearnt[]) => void>()

/** What batches have taught so far. The worker is kept with what it knows of each mix; questions are answered in their order. */
export function learnBatches(batches: readonly BatchAsked[]): Promise<readonly BatchLearnt[]> {
  if (!worker) {
    worker = new Worker(new URL('../workers/learn.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<LearnAnswered>) => {
      waiting.get(data.id)?.(data.batches)
      waiting.delete(data.id)
    }
    // What cannot be worked out leaves the plan's own forecast standing.
    worker.onerror = () => {
      worker?.terminate()
      worker = undefined
      for (const resolve of waiting.values()) resolve([])
      waiting.clear()
    }
  }
  const id = ++asked
  return new Promise((resolve) => {
    waiting.set(id, resolve)
    worker!.postMessage({ id, batches: JSON.parse(JSON.stringify(batches)) } as LearnAsked)
  })
}
