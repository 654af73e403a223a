export * from './fitted-bench.js';
export * from './coat-plan.js';
