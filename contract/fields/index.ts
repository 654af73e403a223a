export * from './fields.js';
export * from './answers.js';
