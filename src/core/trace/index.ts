/**
 * Recorded tracks: reading, finding what was flown, pairing it with what was tapped, drawing, writing. Degrees, feet,
 * knots, seconds. Method in each file.
 */
export * from './read';
export * from './read-words';
export * from './find';
export * from './merge';
export * from './context';
export * from './join';
export * from './replay';
export * from './write';
export * from './work';
