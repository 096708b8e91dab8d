/** The forecast's two thousand trials, away from the page. */
import { expose } from 'comlink';
import { type Forecast, type ForecastInput, forecast } from '@/core/assess/forecast';

export const forecaster = { forecast: (input: ForecastInput): Forecast => forecast(input) };
export type ForecastWorker = typeof forecaster;
expose(forecaster);
