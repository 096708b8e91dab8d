/**
 * Flying sideways, on purpose or not: the crosswind a slip holds, what it costs, the last seconds of a crosswind landing, a
 * final turn with the wrong foot.
 */
export * from './slip';
export * from './decrab';
export * from './final-turn';
