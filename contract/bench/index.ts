export * from './fitted-bench.js';
