export * from './fold';
export * from './messages';
