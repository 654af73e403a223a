export * from './same-revisions.js';
export * from './marks-alike.js';
