export * from './coat-truth.js';
export * from './pairings.js';
