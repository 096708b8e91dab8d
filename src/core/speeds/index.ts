/** Speeds of the day. Everything inside works in calibrated knots; the dial's unit and error table come last. */
export * from './gates';
export * from './turning';
export * from './dial';
