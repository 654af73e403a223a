export * from './tickets.js';
export * from './ticket-page.js';
