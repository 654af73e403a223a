export * from './identify.js';
