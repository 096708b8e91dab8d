/**
 * A type sheet as data: what it is worth flown (polar, margins), whether it agrees with itself, how two versions
 * differ, what its fields are called.
 */
export * from './flown';
export * from './validate';
export * from './validate-words';
export * from './differences';
export * from './labels';
export * from './surface';
export * from './steps';
export * from './sample';
export * from './gaps';
export * from './gap-words';
export * from './paste';
export * from './paste-words';
export * from './dynamics';
