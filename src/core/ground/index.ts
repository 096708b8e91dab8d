/**
 * Turning on the ground: radii, a taxiway corner, the paths to draw it; whether it runs straight or
 * swerves. Metres, degrees.
 */
export * from './turning';
export * from './corner-paths';
export * from './stability';
export * from './run';
export * from './propeller';
