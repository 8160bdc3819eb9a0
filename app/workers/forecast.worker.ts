import { expose } from 'comlink'
import { forecast, type Forecast, type MomentsInput } from '~core/setting/moments'

/** Ranges take tens of milliseconds: worked out beside the page so that typing stays smooth. */
const work = {
  forecast: (inputs: readonly MomentsInput[]): readonly Forecast[] => inputs.map(i => forecast(i)),
}
export type ForecastWork = typeof work
expose(work)
