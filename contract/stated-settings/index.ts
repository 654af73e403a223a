export * from './routes.js';
export * from './stated-settings.js';
