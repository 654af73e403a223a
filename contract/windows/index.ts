export * from './routes.js';
export * from './windows.js';
