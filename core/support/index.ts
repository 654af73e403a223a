export * from './core-error.js';
export * from './random.js';
export * from './require.js';
export * from './runs.js';
