export * from './run-bench.js';
export * from './looks.js';
export * from './routes.js';
export * from './runs.js';
export * from './around.js';
