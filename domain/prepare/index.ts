export * from './sheet-layout.js';
export * from './laid-places.js';
