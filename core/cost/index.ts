export * from './piece-cost.js';
