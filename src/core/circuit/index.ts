/**
 * The circuit: legs in the wind, the whole flown shape with its tasks, and the reach without the engine along it.
 * Knots, feet, metres, seconds.
 */
export * from './legs';
export * from './pace';
export * from './reach-along';
export * from './stop-here';
