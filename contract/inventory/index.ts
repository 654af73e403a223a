export * from './bench-bodies.js';
export * from './bodies.js';
export * from './describe-fields.js';
export * from './of-kind.js';
export * from './requests.js';
export * from './routes.js';
export * from './shelf-bodies.js';
