/** Recorded tracks: reading them, and finding what was flown along a runway. Degrees, feet, knots, seconds. Method in each file. */
export * from './read';
export * from './find';
