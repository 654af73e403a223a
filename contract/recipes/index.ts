export * from './recipes.js';
