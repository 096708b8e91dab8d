/**
 * The brief of the day: mass, wind on each runway, verdicts and gates, put together from the rooms that compute them.
 */
export * from './brief';
export * from './words';
export * from './schedule';
export * from './day';
export * from './one-engine';
export * from './card';
export * from './changed';
