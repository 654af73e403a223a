export * from './day-of.js';
