export * from './ticket-cost.js';
