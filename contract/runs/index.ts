export * from './routes.js';
export * from './runs.js';
