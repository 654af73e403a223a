export * from './durability.js';
export * from './routes.js';
