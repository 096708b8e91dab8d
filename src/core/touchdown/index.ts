/** Touching down: load, hop, side speed and the word for it; and a landing stepped through its bounces. */
export * from './touch';
export * from './bounce';
