export * from './care.js';
export * from './tests.js';
