export * from './same-revisions.js';
