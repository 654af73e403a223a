export * from './below-proved.js';
export * from './care.js';
export * from './tests.js';
