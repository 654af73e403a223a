export * from './samples.js';
export * from './routes.js';
