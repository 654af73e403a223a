export * from './as-seen.js';
export * from './evidence.js';
export * from './questions.js';
