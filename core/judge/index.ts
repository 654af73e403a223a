export * from './sampling.js';
