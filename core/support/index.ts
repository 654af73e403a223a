export * from './core-error.js';
export * from './random.js';
export * from './require.js';
export * from './student-t.js';
export * from './runs.js';
