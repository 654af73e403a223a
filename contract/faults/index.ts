export * from './faults.js';
export * from './routes.js';
