export * from './tickets.js';
