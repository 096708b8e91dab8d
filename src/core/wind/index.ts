/**
 * Wind on a runway, reports as text, crosswind verdicts and the pilot's own step. Knots and degrees; crosswind positive
 * from the right.
 */
export * from './components';
export * from './crosswind';
export * from './ladder';
export * from './report';
export * from './report-words';
export * from './station';
export * from './taxi';
export * from './ladder-plan';
