export * from './questions.js';
