export * from './compound-kinds.js';
export * from './head-kinds.js';
export * from './kinds.js';
export * from './shelf-kinds.js';
export * from './usual.js';
export * from './usual-factors.js';
