/** Turning on the ground: radii, a taxiway corner, the paths to draw it. Metres, degrees. */
export * from './turning';
export * from './corner-paths';
