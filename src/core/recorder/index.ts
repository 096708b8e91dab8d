/**
 * A simulated flight recorder: circuits flown true to the metre, sensors that are not, and the files of both. Method in
 * each file.
 */
export * from './fly';
export { AIRWORK_FLOWN, AIRWORK_TOLD, type AirworkKind, type AirworkPlan, type FlownAirwork } from './airwork';
export * from './sense';
export * from '../random';
export * from './suite';
export * from './score';
export * from './choose';
