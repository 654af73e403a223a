export * from './choice.js';
export * from './routes.js';
