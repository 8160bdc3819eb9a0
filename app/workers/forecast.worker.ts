import { forecastMoments, type MomentsInput, type Moments } from '~core/pour/moments'

/** Ranges take tens of milliseconds: worked out beside the page so that typing stays smooth. */
export interface ForecastAsked { readonly id: number, readonly inputs: readonly MomentsInput[] }
export interface ForecastAnswered { readonly id: number, readonly moments: readonly Moments[] }

self.onmessage = ({ data }: MessageEvent<ForecastAsked>) => {
  self.postMessage({ id: data.id, moments: data.inputs.map(forecastMoments) } satisfies ForecastAnswered)
}
