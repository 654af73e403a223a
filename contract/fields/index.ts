export * from './fields.js';
export * from './answers.js';
export * from './fit.js';
export * from './ranges.js';
