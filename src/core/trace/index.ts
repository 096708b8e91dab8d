/** Recorded tracks: reading them so far; finding and measuring what was flown comes next. Degrees, feet, knots, seconds. */
export * from './read';
