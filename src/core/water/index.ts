/** Water: the gear–surface interlock. Seconds. Method in each file. */
export * from './gear-surface';
export * from './abort-point';
