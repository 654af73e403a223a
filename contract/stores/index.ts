export * from './bodies.js';
export * from './requests.js';
