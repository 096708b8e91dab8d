/** Recency: what counts of what was flown. Counts only for now; windows and expiry come with the rules. */
export * from './counts';
