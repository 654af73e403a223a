export * from './fields.js';
