export * from './nest.js';
export * from './sheet-files.js';
export * from './sheet-layout.js';
export * from './spares.js';
