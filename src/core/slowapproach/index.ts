/**
 * How slowly an approach can be flown: what the wing gives, what the flare needs, what trials at height support, and what
 * is left when the engine stops.
 */
export * from './trials';
export * from './next-trial';
export * from './stopped';
