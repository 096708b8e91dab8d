/** Thin wrappers that put core functions in a web worker. One worker per page, made when first asked. */
import { type Remote, wrap } from 'comlink';
import type { ForecastWorker } from './forecast.worker';
import type { LabWorker } from './lab.worker';

let remote: Remote<LabWorker> | null = null;
export function labWorker(): Remote<LabWorker> {
  remote ??= wrap<LabWorker>(new Worker(new URL('./lab.worker.ts', import.meta.url), { type: 'module', name: 'lab' }));
  return remote;
}

let forecasts: Remote<ForecastWorker> | null = null;
export function forecastWorker(): Remote<ForecastWorker> {
  forecasts ??= wrap<ForecastWorker>(
    new Worker(new URL('./forecast.worker.ts', import.meta.url), { type: 'module', name: 'forecast' }),
  );
  return forecasts;
}
