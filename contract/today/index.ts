export * from './routes.js';
export * from './today.js';
