export * from './outbox';
export * from './shell';
export * from './store';
