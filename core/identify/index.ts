export * from './density.js';
export * from './identify-part.js';
export * from './parts.js';
export * from './tests.js';
