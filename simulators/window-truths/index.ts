export * from './families.js';
export * from './truth.js';
