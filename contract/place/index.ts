export * from './place.js';
export * from './work-out-place.js';
