/**
 * Judging landings and go-arounds, statistics over them, evidence against a programme. Method: the standard's own rows;
 * statistics named in each function.
 */
export * from './landing';
export * from './stats';
export * from './captured';
export * from './captured-words';
export * from './forecast-words';
export * from './counts';
export * from './seen';
export * from './evidence';
export * from './evidence-words';
export * from './carry';
export * from './signing';
export * from './signing-words';
export * from './standard-on';
export * from './debrief';
export * from './airwork';
export * from './airwork-words';
export * from './simulated';
export * from './stops';
export * from './tally';
export * from './tally-words';
export * from './noted';
export * from './distributions';
export * from './spread';
export * from './facts';
export * from './findings';
export * from './forecast';
export * from './progress';
export * from './measures';
