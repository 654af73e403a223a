export * from './recipes.js';
export * from './routes.js';
