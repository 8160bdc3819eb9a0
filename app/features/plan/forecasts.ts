import type { Forecast, MomentsInput } from '~core/setting/moments'
import type { ForecastWork } from '~/workers/forecast.worker'
import { oneAtATime } from '~/workers/one-at-a-time'

const forecasts = oneAtATime<ForecastWork>(() =>
  new Worker(new URL('../../workers/forecast.worker.ts', import.meta.url), { type: 'module' }),
)

/**
 * Moments and outcome with their ranges. A newer question ends an older one that is still being worked on; that one
 * answers undefined.
 */
export function forecast(inputs: readonly MomentsInput[]): Promise<readonly Forecast[] | undefined> {
  const plain = JSON.parse(JSON.stringify(inputs)) as readonly MomentsInput[]
  return forecasts.ask(work => work.forecast(plain))
}
