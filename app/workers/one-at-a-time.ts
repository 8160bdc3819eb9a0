import { wrap, type Remote } from 'comlink'

export type Work<T> = Remote<T>

/**
 * Long work beside the page, one question at a time: a newer one ends the one that is being worked on, which then
 * answers undefined. What a worker is in the middle of can only be stopped by ending it.
 * @param make starts the worker
 * @param begin tells a new worker what the old one knew
 * @param failed is told when it could not be worked out; that question answers undefined
 * @example const forecasts = oneAtATime<ForecastWork>(() => new Worker(…))
 * @example await forecasts.ask(work => work.forecast(inputs))
 */
export function oneAtATime<T>(
  make: () => Worker,
  { begin, failed }: { readonly begin?: (work: Work<T>) => void, readonly failed?: () => void } = {},
) {
  let running: { readonly worker: Worker, readonly work: Work<T> } | undefined
  let giveUp: (() => void) | undefined

  function start(): NonNullable<typeof running> {
    const worker = make(), work = wrap<T>(worker)
    worker.onerror = () => {
      cancel()
      failed?.()
    }
    running = { worker, work }
    begin?.(work)
    return running
  }
  function cancel(): void {
    running?.worker.terminate()
    running = undefined
    giveUp?.()
    giveUp = undefined
  }
  async function ask<A>(question: (work: Work<T>) => Promise<A>): Promise<A | undefined> {
    if (giveUp) cancel()
    const { work } = running ?? start()
    const given = new Promise<undefined>((resolve) => {
      giveUp = () => resolve(undefined)
    })
    const mine = giveUp
    try {
      return await Promise.race([question(work), given])
    }
    catch {
      failed?.()
      return undefined
    }
    finally {
      if (giveUp === mine) giveUp = undefined
    }
  }
  return { ask, cancel }
}
