export * from './cards.js';
export * from './routes.js';
