/**
 * Fuel flow, endurance, circuits that fit, the clock of a flight. Litres, minutes. The handbook's flow governs; the
 * formula is its cross-check.
 */
export * from './endurance';
export * from './flight-clock';
