import { forecast, type Forecast, type MomentsInput } from '~core/setting/moments'

/** Ranges take tens of milliseconds: worked out beside the page so that typing stays smooth. */
export interface ForecastAsked { readonly id: number, readonly inputs: readonly MomentsInput[] }
export interface ForecastAnswered { readonly id: number, readonly forecasts: readonly Forecast[] }

self.onmessage = ({ data }: MessageEvent<ForecastAsked>) => {
  self.postMessage({ id: data.id, forecasts: data.inputs.map(i => forecast(i)) } satisfies ForecastAnswered)
}
