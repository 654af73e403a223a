export * from './verdicts.js';
