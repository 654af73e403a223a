export * from './handbook.js';
