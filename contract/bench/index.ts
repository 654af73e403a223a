export * from './burn-setup.js';
export * from './fitted-bench.js';
export * from './coat-plan.js';
