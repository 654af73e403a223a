export * from './runs.js';
