export * from './families.js';
export * from './truth.js';
export * from './kept.js';
export * from './shops.js';
