/**
 * Bookings: local times, free slots, how the wind of a slot suits a lesson, how the time is spent. Minutes and knots;
 * instants UTC. Method: product's own.
 */
export * from './time';
export * from './typed-date';
export * from './slots';
export * from './fit';
export * from './split';
export * from './limits';
export * from './schedule-words';
