import type { Forecast, MomentsInput } from '~core/setting/moments'
import type { ForecastAnswered, ForecastAsked } from '~/workers/forecast.worker'

let worker: Worker | undefined
let asked = 0
let waiting: { id: number, resolve: (forecasts: readonly Forecast[] | undefined) => void } | undefined

function start(): Worker {
  const made = new Worker(new URL('../../workers/forecast.worker.ts', import.meta.url), { type: 'module' })
  made.onmessage = ({ data }: MessageEvent<ForecastAnswered>) => {
    if (data.id !== waiting?.id) return
    waiting.resolve(data.forecasts)
    waiting = undefined
  }
  return made
}

/**
 * Moments and outcome with their ranges. A newer question ends an older one that is still being worked on; that one
 * answers undefined.
 */
export function forecast(inputs: readonly MomentsInput[]): Promise<readonly Forecast[] | undefined> {
  if (waiting) {
    worker?.terminate()
    worker = undefined
    waiting.resolve(undefined)
  }
  worker ??= start()
  const id = ++asked
  return new Promise((resolve) => {
    waiting = { id, resolve }
    worker!.postMessage({ id, inputs: JSON.parse(JSON.stringify(inputs)) } as ForecastAsked)
  })
}
