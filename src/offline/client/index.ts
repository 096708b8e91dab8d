export * from './outbox';
export * from './store';
