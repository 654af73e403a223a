export * from './ticket-cost.js';
export * from './run-cost.js';
