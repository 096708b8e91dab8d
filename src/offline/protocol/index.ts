export * from './events';
export * from './fold';
export * from './messages';
export * from './order';
