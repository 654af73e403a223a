export * from './routes.js';
export * from './ticket-page.js';
