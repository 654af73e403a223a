export * from './sampling.js';
export * from './protocols.js';
export * from './retention.js';
