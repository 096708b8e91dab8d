/**
 * The vocabulary as schemas and inferred types; imports nothing of ours. `words` and `assess-words` carry no schema
 * library.
 */
export * from './words';
export * from './assess-words';
export * from './handling';
export * from './sheet';
export * from './programme';
export * from './brief';
export * from './capture';
