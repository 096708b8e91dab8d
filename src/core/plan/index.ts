/** What a goal and an airframe demand of the pilot, and who decides. */
export * from './goals';
export * from './airframe';
export * from './opening';
export * from './programmes';
export * from './check';
export * from './check-words';
export * from './lesson';
export * from './school-item';
export * from './lesson-words';
