export * from './routes.js';
