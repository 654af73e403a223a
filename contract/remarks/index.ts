export * from './remarks.js';
export * from './routes.js';
