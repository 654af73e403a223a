export * from './choice.js';
