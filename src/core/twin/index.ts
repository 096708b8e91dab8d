/**
 * The aeroplane with more than one engine, one of them stopped. Density feet, ft/min, knots. The published rates are
 * those of a new aeroplane at its greatest mass, flown exactly: nothing here is a promise.
 */
export * from './one-engine';
