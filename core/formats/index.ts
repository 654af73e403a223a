export * from './csv.js';
