/** A simulated flight recorder: circuits flown true to the metre, sensors that are not, and the files of both. Method in each file. */
export * from './fly';
export * from './sense';
