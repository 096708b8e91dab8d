/**
 * Recent experience: counts of one pilot, and rules over a log on any day. Dates are the aerodrome's own, ISO. Method:
 * the packs' citations.
 */
export * from './acting';
export * from './counts';
export * from './dates';
export * from './evaluate';
export * from './apply';
export * from './log';
export * from './person';
